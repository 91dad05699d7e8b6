import { createContext, useCallback, useContext, useMemo, useRef, useState } from "react";
import { useTabIndex } from "./reach";

type Key = string | number;

interface Choosing {
  chosen: ReadonlySet<Key>;
  onChoose: (key: Key, on: boolean, through: boolean) => void;
}

/** Which rows are chosen: told past the list, so that choosing one draws no other again. */
const Chosen = createContext<Choosing>({ chosen: new Set(), onChoose: () => undefined });

export const ChosenIn = Chosen.Provider;

export const useIsChosen = (key: Key): boolean => useContext(Chosen).chosen.has(key);

/**
 * Rows of a list that are chosen, to be dealt with at once. `keys`: those in the list; with Shift all
 * from the row chosen last are.
 */
export function useChosen<Of extends Key>(keys: readonly Of[]) {
  const [chosen, setChosen] = useState<ReadonlySet<Of>>(new Set());
  const last = useRef<Of | null>(null);
  const now = useRef(keys);
  now.current = keys;
  const onChoose = useCallback((key: Key, on: boolean, through: boolean) => {
    const places = [last.current, key as Of].map((one) => now.current.indexOf(one as Of));
    const run =
      through && places.every((place) => place >= 0)
        ? now.current.slice(Math.min(...places), Math.max(...places) + 1)
        : [key as Of];
    last.current = key as Of;
    setChosen((before) => {
      const rest = [...before].filter((one) => !run.includes(one));
      return new Set(on ? [...rest, ...run] : rest);
    });
  }, []);
  return {
    /** For `ChosenIn`. */
    choosing: useMemo<Choosing>(() => ({ chosen, onChoose }), [chosen, onChoose]),
    /** Those that are chosen, in the order of the list. */
    picked: keys.filter((key) => chosen.has(key)),
    all: (some: readonly Of[], on: boolean) => setChosen(new Set(on ? some : [])),
  };
}

/** The mark by which a row is chosen. */
export function ChooseBox({ of, name }: { of: Key; name: string }) {
  const { chosen, onChoose } = useContext(Chosen);
  const through = useRef(false);
  return (
    <input
      type="checkbox"
      aria-label={`Choose ${name}`}
      title="Shift: all from the one chosen last"
      tabIndex={useTabIndex()}
      className="accent-(--sun) w-4 h-4 cursor-pointer shrink-0"
      checked={chosen.has(of)}
      onClick={(event) => {
        through.current = event.shiftKey;
      }}
      onChange={(event) => onChoose(of, event.currentTarget.checked, through.current)}
    />
  );
}

/** The mark over a list, by which all in it are chosen. */
export function ChooseAll<Of extends Key>({
  label,
  shown,
  picked,
  onAll,
}: {
  label: string;
  shown: readonly Of[];
  picked: readonly Of[];
  onAll: (on: boolean) => void;
}) {
  return (
    <input
      type="checkbox"
      aria-label={label}
      className="accent-(--sun) w-4 h-4 cursor-pointer"
      checked={shown.length > 0 && shown.every((key) => picked.includes(key))}
      onChange={(event) => onAll(event.currentTarget.checked)}
    />
  );
}
