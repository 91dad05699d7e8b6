/** What this screen shows on each bay: kept for the screen alone, through a reload, never undone. */
import { useCallback, useEffect, useState } from "react";
import { memberFor } from "../../data/gangs";
import { type ShowState, valueIn } from "../../data/show";

export interface BayView {
  bank: number;
  /** What is unfolded, the last on top. */
  unfolded: readonly string[];
  page: number;
}

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
  const key = `banks of ${localStorage.getItem("show")}`;
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
): { bay: number; bank: number | null } | null {
  const bays = state.desk?.bays ?? [];
  const wanted = memberFor(state, strip);
  const at = (bay: number, head: string) => {
    for (let place = 1; place <= bays[bay - 1]!.faders; place++) {
      const held = valueIn(state, `${head}/${place}`);
      if (held === strip || held === wanted) return true;
    }
    return false;
  };
  const sides = bays.map((_, index) => index + 1);
  for (const bay of sides) if (at(bay, `bay/${bay}/fixed`)) return { bay, bank: null };
  for (const bay of sides) {
    const { bank } = viewOfBay(surface, bay, state.banks);
    if (at(bay, `bank/${bank}/${bay}`)) return { bay, bank };
  }
  for (const bank of state.banks)
    for (const bay of sides) if (at(bay, `bank/${bank}/${bay}`)) return { bay, bank };
  return null;
}

export const viewOfBay = (surface: Surface, bay: number, banks: readonly number[]): BayView => {
  const view = surface.bays[bay];
  const first = banks[Math.min(bay, banks.length) - 1] ?? 1;
  if (!view || (!banks.includes(view.bank) && banks.length > 0))
    return { bank: first, unfolded: view?.unfolded ?? [], page: 0 };
  return view;
};
