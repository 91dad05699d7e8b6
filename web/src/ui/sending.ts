import type { Dispatch, SetStateAction } from "react";

/** What is typed into a field, and what sets it. */
export type Typed = readonly [text: string, set: Dispatch<SetStateAction<string>>];

/**
 * Makes what was typed: its fields are empty at once for what is typed next, and have it back where
 * that was refused and nothing else was typed since.
 */
export async function sending(
  fields: readonly Typed[],
  make: () => Promise<boolean>,
): Promise<boolean> {
  for (const [, set] of fields) set("");
  const kept = await make();
  if (!kept) for (const [text, set] of fields) set((now) => now || text);
  return kept;
}
