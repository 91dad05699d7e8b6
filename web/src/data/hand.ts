/** A hand's edits: the gangs of what it moves follow, unless it moves that alone. */

import { useCallback } from "react";
import { habits } from "./settings";
import { store } from "./show";
import type { Ask, Move } from "./types";
import { useLink } from "./use";

interface HandWays {
  /** Strips taken together with it, one more gang for this gesture. */
  beside?: readonly string[];
  /** The hand stays where it is until it lets go. */
  stays?: boolean;
}

export const byHand = (moves: Move[], ways: HandWays = {}): Ask => ({
  action: "moves",
  moves,
  by_hand: {
    alone: store.getState().alone,
    beside: [...(ways.beside ?? [])],
    stays: ways.stays ?? false,
  },
});

/** Sets values by hand, as typed or by a key. */
export function useSetByHand(): (address: string, typed: string) => void {
  const link = useLink();
  return useCallback((address, typed) => void link.do(byHand([{ address, typed }])), [link]);
}

export const setAlone = (alone: boolean): void => {
  if (store.getState().alone !== alone) store.setState({ alone });
};

/** While A is held, hands move what they hold alone. Gives what takes the listeners off again. */
export function listenForAlone(isTyping: (event: KeyboardEvent) => boolean): () => void {
  const down = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event)) return;
    if (event.key.toLowerCase() === "a" && habits.getState().letters) setAlone(true);
  };
  const up = (event: KeyboardEvent) => event.key.toLowerCase() === "a" && setAlone(false);
  const gone = () => setAlone(false); // a page that is left hears of no key let go
  window.addEventListener("keydown", down);
  window.addEventListener("keyup", up);
  window.addEventListener("blur", gone);
  return () => {
    window.removeEventListener("keydown", down);
    window.removeEventListener("keyup", up);
    window.removeEventListener("blur", gone);
  };
}
