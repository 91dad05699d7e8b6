/** Hooks: each picks one value, so that a component is drawn again only for what it draws. */

import { createContext, useContext, useMemo } from "react";
import { useStore } from "zustand";
import { inWords, isOf, thingOf } from "./address";
import kinds from "./generated/kinds.json";
import type { Link } from "./link";
import { type ShowState, store, valueIn } from "./show";
import type { Parameter, Value } from "./types";

export const LinkContext = createContext<Link | null>(null);

export function useLink(): Link {
  const link = useContext(LinkContext);
  if (!link) throw new Error("no link above this component");
  return link;
}

export const useShow = <T>(pick: (state: ShowState) => T): T => useStore(store, pick);

export const useValue = (address: string): Value => useShow((state) => valueIn(state, address));

export const useText = (address: string): string => {
  const value = useValue(address);
  return value === null ? "" : String(value);
};

export const useOn = (address: string): boolean => useValue(address) === true;

export const useLevel = (address: string): number | null => {
  const value = useValue(address);
  return typeof value === "number" ? value : null;
};

export function useParameter(address: string): Parameter {
  const catalogue = useShow((state) => state.catalogue);
  if (!catalogue) throw new Error("the desk is not loaded yet");
  return catalogue.at(address);
}

/**
 * Something put together from what the patch is drawn from; again only when that moved.
 * `compute` must stay the same function from one drawing to the next: one of its module.
 */
export function usePatched<T>(compute: (state: ShowState) => T): T {
  const patched = useShow((state) => state.patched);
  return useMemo(() => compute(store.getState()), [patched, compute]);
}

/** The same, of what holds the words typed into a filter. */
export function useFiltered<T>(
  compute: (state: ShowState, filter: string) => T,
  filter: string,
): T {
  const patched = useShow((state) => state.patched);
  return useMemo(() => compute(store.getState(), filter), [patched, compute, filter]);
}

const NO_CHANNELS: readonly number[] = [];

/** The channels that a socket, or a side of a bus, feeds now. */
export const fedBy = (state: ShowState, source: string | null): readonly number[] =>
  (source && state.fed_by.get(source)) || NO_CHANNELS;

/** What feeds a source now, and whether that is its spare. */
export function sourceInForce(
  state: ShowState,
  source: string,
): { from: string | null; spare: boolean } {
  const spare = isOf(source, "channel") && valueIn(state, `${source}/on_spare`) === true;
  return {
    from: valueIn(state, `${source}/${spare ? "spare" : "source"}`) as string | null,
    spare,
  };
}

/** What an unnamed thing of a kind is called, before its number: as the core calls it. */
export const kindWord = (kind: string): string => KIND_WORDS[kind] ?? capital(kind);

const KIND_WORDS: Readonly<Record<string, string>> = kinds.kind_words;
const SIDE_WORDS: Readonly<Record<string, string>> = kinds.side_words;
const capital = (word: string): string => `${word.charAt(0).toUpperCase()}${word.slice(1)}`;

/** What people call a strip; its kind and number while it has no name. */
export function stripName(state: ShowState, strip: string): string {
  if (isOf(strip, "output"))
    return String(valueIn(state, `${strip}/label`) || "") || socketName(state, strip);
  const { kind, number } = thingOf(strip);
  if (number === 0) return kindWord(kind);
  const name = valueIn(state, `${strip}/name`);
  return name ? String(name) : `${kindWord(kind)} ${number}`;
}

/** The same in a list to choose from, where two may be called alike: "Ears fiddle · mix 3". */
export function listedName(state: ShowState, strip: string): string {
  const name = stripName(state, strip);
  // the house has no name of its own, and one without a name is called by its number already
  return state.values.get(`${strip}/name`) ? `${name} · ${inWords(strip)}` : name;
}

export const useStripName = (strip: string): string => useShow((state) => stripName(state, strip));

/** What people call a socket: `input/a/7` is "Harbour 7". */
export function socketName(state: ShowState, socket: string | null): string {
  if (!socket) return "";
  const { kind, number, box, leaf } = thingOf(socket);
  if (!box) {
    return `${capital(kind)}${number ? ` ${number}` : ""}${SIDE_WORDS[leaf] ?? ""}`;
  }
  const known = state.desk?.boxes.find((one) => one.key === box);
  return `${known?.short ?? box} ${number}`;
}

/** Who is on a channel, with whose settings: "Ada as Gull"; "" for nobody. */
export function whoIsOn(state: ShowState, channel: string): string {
  const fitting = valueIn(state, `${channel}/fitting`);
  if (typeof fitting !== "string") return "";
  const at = (of: string) => valueIn(state, `${fitting}/${of}`);
  const name = (thing: unknown) =>
    typeof thing === "string" ? String(valueIn(state, `${thing}/name`) ?? "") : "";
  const part = name(at("part"));
  return part ? `${name(at("performer"))} as ${part}` : name(at("performer"));
}

export function select(source: string | null, listener?: string): void {
  store.setState((state) => {
    const chosen = {
      source: source ?? state.selected?.source ?? `channel/${state.channels[0] ?? 1}`,
      listener: listener ?? state.selected?.listener ?? "house",
    };
    const same =
      chosen.source === state.selected?.source && chosen.listener === state.selected.listener;
    return same ? {} : { selected: chosen };
  });
}

/** The groups in use, as options of a list. */
export const useGroupOptions = () => useBusOptions("group");

/** The groups or mixes in use, as options of a list. */
export function useBusOptions(kind: "group" | "mix"): readonly (readonly [string, string])[] {
  const rows = useShow((state) =>
    (kind === "group" ? state.groups : state.mixes)
      .map((n) => `${kind}/${n}\t${listedName(state, `${kind}/${n}`)}`)
      .join("\n"),
  );
  return useMemo(
    () =>
      rows
        .split("\n")
        .filter(Boolean)
        .map((row) => row.split("\t") as [string, string]),
    [rows],
  );
}
