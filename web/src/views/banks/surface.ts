/** What this screen shows on each bay: kept for the screen alone, through a reload, never undone. */
import { useCallback, useEffect, useState } from "react";
import { memberFor } from "../../data/gangs";
import { type ShowState, valueIn } from "../../data/show";

export interface BayView {
  bank: number;
  /** The page of the bank, from 0. */
  page: number;
  /** What is unfolded, the last on top. */
  unfolded: readonly Unfolded[];
  /** The page of what is unfolded. */
  inner: number;
}

/** A DCA, gang, group or mix that is unfolded, and the fader that it keeps; 0: none. */
export interface Unfolded {
  thing: string;
  at: number;
}

/** A bank as it is called: nothing unfolded. */
export const calling = (bank: number, page = 0): BayView => ({
  bank,
  page,
  unfolded: [],
  inner: 0,
});

/** With one thing more unfolded, or the last folded up. */
export const unfolding = (view: BayView, thing: string, at: number): BayView => ({
  ...view,
  unfolded: [...view.unfolded, { thing, at }],
  inner: 0,
});
export const folded = (view: BayView): BayView => ({
  ...view,
  unfolded: view.unfolded.slice(0, -1),
  inner: 0,
});

export interface Surface {
  bays: Readonly<Record<number, BayView>>;
  /** The bay in sight. */
  bay: number;
  /** The mix whose sends lie under the faders, if any. */
  listen: string | null;
}

const AT_FIRST: Surface = { bays: {}, bay: 1, listen: null };

function kept(key: string): Surface {
  try {
    return { ...AT_FIRST, ...(JSON.parse(sessionStorage.getItem(key) ?? "{}") as Surface) };
  } catch {
    return AT_FIRST; // somebody else's words under our key
  }
}

export function useSurface(): [Surface, (change: Partial<Surface>) => void] {
  const key = `surface of ${localStorage.getItem("show")}`;
  const [surface, setSurface] = useState<Surface>(() => kept(key));
  useEffect(() => sessionStorage.setItem(key, JSON.stringify(surface)), [key, surface]);
  const change = useCallback(
    (some: Partial<Surface>) => setSurface((before) => ({ ...before, ...some })),
    [],
  );
  return [surface, change];
}

/** On which side of the surface a strip lies, and in which bank; null: on none. What is in sight first. */
export function liesOn(
  state: ShowState,
  surface: Surface,
  strip: string,
): { bay: number; bank: number | null; page: number } | null {
  const bays = state.desk?.bays ?? [];
  const wanted = memberFor(state, strip);
  const placeIn = (head: string, most: number) => {
    for (let place = 1; place <= most; place++) {
      const held = valueIn(state, `${head}/${place}`);
      if (held === strip || held === wanted) return place;
    }
    return 0;
  };
  const fixedOn = (bay: number) => placeIn(`bay/${bay}/fixed`, bays[bay - 1]!.faders) > 0;
  const inBank = (bay: number, bank: number) => {
    const place = placeIn(`bank/${bank}/${bay}`, state.desk!.bank_places);
    if (place === 0) return null;
    const { faders } = bays[bay - 1]!;
    let free = 0;
    for (let one = 1; one <= faders; one++) if (!valueIn(state, `bay/${bay}/fixed/${one}`)) free++;
    const page = place <= faders ? 0 : Math.ceil((place - faders) / Math.max(1, free));
    return { bay, bank, page };
  };
  const sides = bays.map((_, index) => index + 1);
  for (const bay of sides) if (fixedOn(bay)) return { bay, bank: null, page: 0 };
  for (const bay of sides) {
    const found = inBank(bay, viewOfBay(surface, bay, state.banks).bank);
    if (found) return found;
  }
  for (const bank of state.banks)
    for (const bay of sides) {
      const found = inBank(bay, bank);
      if (found) return found;
    }
  return null;
}

export const viewOfBay = (surface: Surface, bay: number, banks: readonly number[]): BayView => {
  const view = surface.bays[bay];
  const first = banks[Math.min(bay, banks.length) - 1] ?? 1;
  if (!view || (!banks.includes(view.bank) && banks.length > 0))
    return { ...calling(first), unfolded: view?.unfolded ?? [] };
  return view;
};
