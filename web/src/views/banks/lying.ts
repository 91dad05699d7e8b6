/** Which strip lies under which fader: for drawing. What pages and places hold, the core says. */
import { useMemo, useRef } from "react";
import { thingOf } from "../../data/address";
import { memberFor } from "../../data/gangs";
import { type ShowState, valueIn } from "../../data/show";
import { useShow } from "../../data/use";
import type { BayView, Unfolded } from "./surface";

export interface Lying {
  /** What lies there; "" for nothing. A pair takes one place, by its odd side. */
  shown: readonly string[];
  /** Where a strip lies on every bank. */
  fixed: readonly boolean[];
  /** Where each place of this page is kept in the bank; "" where none is. */
  addresses: readonly string[];
  /** What the bank holds there. */
  called: readonly string[];
  /** What is unfolded and still there, the last on top. */
  trail: readonly Unfolded[];
  page: number;
  pages: number;
}

/** What lies under the faders of a bay, by what is called and unfolded there. */
export function useLying(number: number, faders: number, view: BayView): Lying {
  const fixed = usePlaces(numbers(faders).map((place) => `bay/${number}/fixed/${place}`));
  const most = useShow((state) => state.desk!.bank_places);
  const stem = `bank/${view.bank}/${number}`;
  const last = useShow((state) => lastHeld(state, stem, most));
  const free = numbers(faders).filter((place) => !fixed[place - 1]);
  const further = last > faders ? Math.ceil((last - faders) / Math.max(1, free.length)) : 0;
  const trail = useThere(view.unfolded);
  const top = trail.at(-1);
  const members = useShow((state) => (top ? state.unfolded[top.thing] : undefined));

  const page = Math.min(view.page, further);
  const addresses = numbers(faders).map((place) => {
    const turn = free.indexOf(place);
    if (turn < 0) return "";
    return `${stem}/${page === 0 ? place : faders + (page - 1) * free.length + turn + 1}`;
  });
  const called = usePlaces(addresses);
  // what is unfolded keeps its fader, and its members take the others
  const taking = free.filter((place) => place !== top?.at);
  const inner = Math.max(1, Math.ceil((members?.length ?? 0) / Math.max(1, taking.length)));
  const innerPage = Math.min(view.inner, inner - 1);
  const lying = numbers(faders).map((place) => {
    if (fixed[place - 1]) return fixed[place - 1]!;
    if (!top) return called[place - 1] ?? "";
    if (place === top.at) return top.thing;
    return members?.[innerPage * taking.length + taking.indexOf(place)] ?? "";
  });
  return {
    shown: useMembers(lying),
    fixed: fixed.map(Boolean),
    addresses,
    called,
    trail,
    page: top ? innerPage : page,
    pages: top ? inner : further + 1,
  };
}

/**
 * What hands are on stays under them, whatever is called or unfolded meanwhile. `keep` holds what
 * lies at a place until `free` lets it go.
 */
export function useUnderHands(lying: readonly string[], drawAgain: () => void) {
  const held = useRef(new Map<number, string>());
  return {
    shown: lying.map((strip, index) => held.current.get(index + 1) ?? strip),
    keep: (place: number, strip: string) => void held.current.set(place, strip),
    free: (place: number) => {
      if (held.current.delete(place)) drawAgain();
    },
  };
}

const numbers = (count: number): number[] => Array.from({ length: count }, (_, index) => index + 1);

function lastHeld(state: ShowState, stem: string, most: number): number {
  for (let place = most; place > 0; place--)
    if (state.values.has(`${stem}/${place}`) && valueIn(state, `${stem}/${place}`)) return place;
  return 0;
}

/** Strips with pairs by their odd side; the even takes no place of its own beside it. */
function useMembers(strips: readonly string[]): readonly string[] {
  const text = useShow((state) =>
    strips
      .map((strip) => {
        const member = memberFor(state, strip);
        return member !== strip && strips.includes(member) ? "" : member;
      })
      .join("\n"),
  );
  return useMemo(() => text.split("\n"), [text]);
}

const IN_USE = { dca: "dcas", gang: "gangs", group: "groups", mix: "mixes" } as const;

/** Of what is unfolded, what is still there: what was deleted is folded up by that. */
function useThere(trail: readonly Unfolded[]): readonly Unfolded[] {
  const text = useShow((state) =>
    trail
      .filter(({ thing }) => {
        const { kind, number } = thingOf(thing);
        return state[IN_USE[kind as keyof typeof IN_USE]].includes(Number(number));
      })
      .map(({ thing }) => thing)
      .join("\n"),
  );
  return useMemo(() => {
    const there = text.split("\n");
    return trail.filter(({ thing }) => there.includes(thing));
  }, [text, trail]);
}

/** What stands at some addresses, "" for nothing. */
function usePlaces(addresses: readonly string[]): readonly string[] {
  const text = useShow((state) =>
    addresses.map((address) => (address && valueIn(state, address)) ?? "").join("\n"),
  );
  return useMemo(() => text.split("\n"), [text]);
}
