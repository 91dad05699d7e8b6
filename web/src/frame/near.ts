/** Whether a word was meant by what was typed: one letter wrong, missing, too many, or two swapped. */

const SHORTEST = 4; // shorter words are too easily somebody else's

export function isNear(typed: string, text: string): boolean {
  if (text.includes(typed)) return true;
  if (typed.length < SHORTEST) return false;
  return text.split(/[^\p{L}\p{N}]+/u).some((word) => {
    // what is typed may be the beginning of a longer word
    for (const length of [typed.length - 1, typed.length, typed.length + 1])
      if (oneSlip(typed, word.slice(0, length))) return true;
    return false;
  });
}

/** One insertion, deletion, replacement or swap of neighbours apart. */
function oneSlip(one: string, other: string): boolean {
  if (Math.abs(one.length - other.length) > 1) return false;
  let at = 0;
  while (at < one.length && one[at] === other[at]) at++;
  const rest = (text: string, from: number) => text.slice(from);
  if (one.length === other.length)
    return (
      rest(one, at + 1) === rest(other, at + 1) ||
      (one[at] === other[at + 1] &&
        one[at + 1] === other[at] &&
        rest(one, at + 2) === rest(other, at + 2))
    );
  return one.length > other.length
    ? rest(one, at + 1) === rest(other, at)
    : rest(one, at) === rest(other, at + 1);
}
