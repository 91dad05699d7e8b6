/** Names as people list or paste them: one to a comma, semicolon, tab or line; in quotes a name may have one. */
export const namesIn = (text: string): string[] =>
  (text.replace(/[“”]/g, '"').match(/\s*"[^"]*"\s*(?=[,;\n\t]|$)|[^,;\n\t]+/g) ?? [])
    .map((name) =>
      name
        .trim()
        .replace(/^"(.*)"$/, "$1")
        .trim(),
    )
    .filter(Boolean);
