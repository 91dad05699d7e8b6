/** The first steps of a show: what does each, and whether somebody goes by them. */
import { useStore } from "zustand";
import { createStore } from "zustand/vanilla";
import { store } from "../data/show";
import type { Ask, FirstStep } from "../data/types";

const WITHOUT: ReadonlySet<string> = new Set(["paper", "guide", "settings", "shows", "run"]);

/** Whether a view is of the work that the first steps lead through. */
export const hasSteps = (view: string): boolean => !WITHOUT.has(view);

const key = (show: string) => `first steps ${show}`;

/** Told anew when somebody goes by them, or puts them away. */
const steps = createStore<{ told: number }>()(() => ({ told: 0 }));

/** "begun" since the show was seen without a line, "away" since somebody put them away. */
const standing = (show: string): string => localStorage.getItem(key(show)) ?? "";

export function useStepsOf(show: string): string {
  useStore(steps, ({ told }) => told);
  return standing(show);
}

export function setSteps(show: string, how: "begun" | "away"): void {
  localStorage.setItem(key(show), how);
  steps.setState(({ told }) => ({ told: told + 1 }));
}

/** A show without a line is new: from then on it goes by the first steps, until they are done. */
export function beginSteps(): void {
  const { desk, lines } = store.getState();
  if (desk && lines.length === 0 && !standing(desk.show.id)) setSteps(desk.show.id, "begun");
}

/** What does a step here, else where it is done. */
export interface Way {
  word: string;
  ask?: Ask;
  to: string;
  does: string;
}

export const WAYS: Record<FirstStep["key"], Way> = {
  list: { word: "List", to: "/lines?import=1", does: "Import a list" },
  patched: {
    word: "Patched",
    ask: { action: "patch_lines", lines: [] },
    to: "/patch",
    does: "Patch all lines",
  },
  mixes: { word: "Mixes", to: "/mixes?new=1", does: "New mixes" },
  outputs: {
    word: "Outputs",
    ask: { action: "patch_bus", bus: "house", sockets: "" },
    to: "/outputs",
    does: "Patch the house",
  },
  check: { word: "Line check", to: "/check", does: "Begin the line check" },
};
