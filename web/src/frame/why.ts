/** Where Why stands: open where it answers what one looks at, else folded to an edge; as a person chose. */
import { choose, habits, useHabits } from "../data/settings";

/** Views in which Why answers for what is selected there. */
const ANSWERS: ReadonlySet<string> = new Set([
  "hears",
  "wrong",
  "mixes",
  "effects",
  "strip",
  "banks",
]);
/** Views in which there is nothing that it could answer. */
const SILENT: ReadonlySet<string> = new Set(["paper", "guide", "settings", "shows", "history"]);

export const hasWhy = (view: string): boolean => !SILENT.has(view);

export const useWhyFolded = (view: string): boolean =>
  useHabits((now) => now.why_folded?.[view] ?? !ANSWERS.has(view));

export const isFolded = (view: string): boolean =>
  habits.getState().why_folded?.[view] ?? !ANSWERS.has(view);

export function foldWhy(view: string, folded: boolean): void {
  choose({ why_folded: { ...habits.getState().why_folded, [view]: folded } });
}
