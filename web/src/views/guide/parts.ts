/** The guide in its parts: read when somebody asks for it. */
export interface GuidePart {
  title: string;
  text: string;
}

export const partsOf = (guide: string): readonly GuidePart[] =>
  guide
    .split(/^## /m)
    .slice(1)
    .map((part) => {
      const end = part.indexOf("\n");
      return { title: part.slice(0, end).trim(), text: part.slice(end + 1) };
    });

export const guideParts = (): Promise<readonly GuidePart[]> =>
  import("../../../../docs/guide.md?raw").then((all) => partsOf(all.default));
