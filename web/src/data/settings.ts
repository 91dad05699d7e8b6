/** How this person likes to be told things: kept by the server, and here for a page that is not signed in yet. */
import { useStore } from "zustand";
import { createStore } from "zustand/vanilla";
import { keepHabits } from "./http";
import type { Habits } from "./types";

const AT_FIRST: Habits = {
  start: "hears",
  theme: "dusk",
  text: 100,
  clock: "24",
  date: "iso",
  letters: true,
  why_side: "right",
  why_folded: {},
};
const HERE = "habits";

function keptHere(): Habits {
  try {
    return { ...AT_FIRST, ...JSON.parse(localStorage.getItem(HERE) ?? "{}") };
  } catch {
    return AT_FIRST;
  }
}

export const habits = createStore<Habits>()(() => AT_FIRST);

export const useHabits = <T>(of: (habits: Habits) => T): T => useStore(habits, of);

const DAYLIGHT = "(prefers-color-scheme: light)";

/** The theme that is drawn: the system's own, if that is what is wanted. */
export const themeOf = ({ theme }: Habits): string =>
  theme !== "system" ? theme : matchMedia(DAYLIGHT).matches ? "daylight" : "dusk";

function drawn(now: Habits): void {
  const root = document.documentElement;
  root.dataset.theme = themeOf(now);
  document.body.style.zoom = String(now.text / 100);
}

/** Draws the page as this person likes it, from the start, and follows the system's theme. */
export function beginHabits(): void {
  habits.subscribe(drawn);
  habits.setState(keptHere());
  drawn(habits.getState());
  matchMedia(DAYLIGHT).addEventListener("change", () => drawn(habits.getState()));
}

/** What was chosen and is not with the server yet: it outlives this page. */
const UNSENT = "habits unsent";

function unsent(): Partial<Habits> {
  try {
    return JSON.parse(localStorage.getItem(UNSENT) ?? "{}");
  } catch {
    return {};
  }
}

function stand(now: Habits): void {
  localStorage.setItem(HERE, JSON.stringify(now));
  habits.setState(now);
}

/** What the server has of this person; what it has not been told yet counts, and is told now. */
export function tellHabits(some: Partial<Habits>): void {
  stand({ ...AT_FIRST, ...some, ...unsent() });
  send();
}

function send(): void {
  const some = unsent();
  if (Object.keys(some).length === 0) return;
  const sent = JSON.stringify(some);
  void keepHabits(some)
    .then(() => {
      if (localStorage.getItem(UNSENT) === sent) localStorage.removeItem(UNSENT);
    })
    .catch(() => undefined); // the server is away: it is sent again with the next choice or page
}

/** Another choice, at once here and then at the server; where that is away it stands here. */
export function choose(some: Partial<Habits>): void {
  localStorage.setItem(UNSENT, JSON.stringify({ ...unsent(), ...some }));
  stand({ ...habits.getState(), ...some });
  send();
}

export const toggleTheme = (): void =>
  choose({ theme: themeOf(habits.getState()) === "daylight" ? "dusk" : "daylight" });
