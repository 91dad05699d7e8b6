/** The first steps of a show: what is done of them, and whether somebody goes by them. */
import { useStore } from "zustand";
import { createStore } from "zustand/vanilla";
import { kindOf } from "../data/address";
import { type ShowState, store, valueIn } from "../data/show";
import type { Ask } from "../data/types";

export interface Step {
  key: string;
  word: string;
  /** What it is, in a sentence. */
  says: string;
  done: boolean;
  /** What does it here, else where it is done. */
  ask?: Ask;
  to: string;
  does: string;
}

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

/** What is done of each step, in the order of the work. */
export function stepsOf(state: ShowState): Step[] {
  const loose = state.lines.filter((line) => valueIn(state, `line/${line}/socket`) === null);
  const house = [...state.outputs].some((socket) => {
    const source = valueIn(state, `${socket}/source`);
    return typeof source === "string" && ["house", "mono"].includes(kindOf(source));
  });
  const checked = state.lines.some((line) => valueIn(state, `line/${line}/check`) !== "unchecked");
  return [
    {
      key: "list",
      word: "List",
      says: "What the band brings, a line each: paste it, import it, or type it.",
      done: state.lines.length > 0,
      to: "/lines?import=1",
      does: "Import a list",
    },
    {
      key: "patched",
      word: "Patched",
      says: `Each line on a socket, and a channel for it: ${loose.length} of ${state.lines.length} have none yet.`,
      done: state.lines.length > 0 && loose.length === 0,
      ask: { action: "patch_lines", lines: [] },
      to: "/patch",
      does: "Patch all lines",
    },
    {
      key: "mixes",
      word: "Mixes",
      says: "Ears and wedges, one for each performer, by their names.",
      done: state.mixes.length > 0,
      to: "/mixes?new=1",
      does: "New mixes",
    },
    {
      key: "outputs",
      word: "Outputs",
      says: "The house on its sockets, and what is plugged into them.",
      done: house,
      to: "/outputs",
      does: "Open Outputs",
    },
    {
      key: "check",
      word: "Line check",
      says: "Line by line with somebody on stage. All faders are off after an import: that is where one begins, and no fault.",
      done: checked,
      to: "/check",
      does: "Begin the line check",
    },
  ];
}
