/** How what is typed is looked for in names: letters without their accents, "A14" as "A 14". */

const PLAIN: Record<string, string> = {
  ß: "ss", æ: "ae", œ: "oe", ø: "o", đ: "d", ð: "d", ł: "l", þ: "th", ı: "i", ħ: "h",
}; // biome-ignore format: one alphabet

/** A text in small letters without accents. */
export const folded = (text: string): string =>
  text
    .toLowerCase()
    .normalize("NFKD")
    .replace(/\p{M}/gu, "")
    .replace(/[ßæœøđðłþıħ]/g, (letter) => PLAIN[letter]!);

/** The same without the blanks between letters and figures. */
const squeezed = (plain: string): string => plain.replace(/(?<=\p{L})\s+(?=\d)/gu, "");

const within = (text: string): ((part: string) => boolean) => {
  const plain = folded(text);
  const narrow = squeezed(plain);
  return (part) => plain.includes(part) || narrow.includes(part);
};

/** Whether a text has every word that is typed, in whatever order. */
export function hasWords(typed: string): (text: string) => boolean {
  const words = folded(typed).split(/\s+/).filter(Boolean);
  return (text) => words.every(within(text));
}

/** Whether a text has what is typed as it stands: "b 2" is not "2 b". */
export function hasPhrase(typed: string): (text: string) => boolean {
  const phrase = folded(typed).trim().replace(/\s+/g, " ");
  const narrow = squeezed(phrase);
  return (text) => within(text)(phrase) || within(text)(narrow);
}
