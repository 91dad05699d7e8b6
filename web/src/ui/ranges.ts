/** Ascending numbers as people type them: "7", "1-16", "1-3, 7". For drawing and filling in only. */
export function runs(numbers: readonly number[]): string {
  const parts: string[] = [];
  for (let index = 0; index < numbers.length; index++) {
    const first = numbers[index]!;
    let last = first;
    while (numbers[index + 1] === last + 1) last = numbers[++index]!;
    parts.push(first === last ? String(first) : `${first}-${last}`);
  }
  return parts.join(", ");
}
