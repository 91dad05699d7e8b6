/** What strips can be assigned to, and whether a strip is: for drawing and painting. */
import { useMemo } from "react";
import { type ShowState, valueIn } from "../../data/show";
import { useShow } from "../../data/use";
import type { CellMark } from "../../ui/PaintTable";

export const KINDS = [
  { key: "main", word: "house, mono" },
  { key: "group", word: "groups" },
  { key: "mix", word: "mixes" },
  { key: "matrix", word: "matrices" },
  { key: "dca", word: "DCAs" },
  { key: "mute_group", word: "mutes" },
  { key: "gang", word: "gangs" },
] as const;
export type KindKey = (typeof KINDS)[number]["key"];

/** The columns that are shown, as what stands between a strip and "/on": "group/1", "send/mix/3". */
export function useColumns(hidden: ReadonlySet<KindKey>): readonly string[] {
  const groups = useShow((state) => state.groups);
  const mixes = useShow((state) => state.mixes);
  const matrices = useShow((state) => state.matrices);
  const dcas = useShow((state) => state.dcas);
  const mutes = useShow((state) => state.mute_groups);
  const gangs = useShow((state) => state.gangs);
  return useMemo(() => {
    const of = (kind: KindKey, stem: string, numbers: readonly number[]) =>
      hidden.has(kind) ? [] : numbers.map((number) => `${stem}/${number}`);
    return [
      ...(hidden.has("main") ? [] : ["house", "mono"]),
      ...of("group", "group", groups),
      ...of("mix", "send/mix", mixes),
      ...of("matrix", "send/matrix", matrices),
      ...of("dca", "dca", dcas),
      ...of("mute_group", "mute_group", mutes),
      ...of("gang", "gang", gangs),
    ];
  }, [hidden, groups, mixes, matrices, dcas, mutes, gangs]);
}

const has = (state: ShowState, address: string): boolean => state.catalogue?.has(address) === true;

/** Whether a cell `<strip>/<column>` is on: assigned, a member, or sent above off. */
export function isIn(state: ShowState, cell: string): boolean {
  if (valueIn(state, `${cell}/on`) !== true) return false;
  return !isSend(cell) || valueIn(state, `${cell}/level`) !== null;
}

const isSend = (cell: string): boolean => /(^|\/)send\//.test(cell);

/**
 * What a cell shows. A send that stands at off is left alone by painting: its switch alone would open
 * nothing, and how loud it is to be nobody has said.
 */
export function markOf(state: ShowState, strip: string, column: string): CellMark {
  const cell = `${strip}/${column}`;
  if (strip === column || !has(state, `${cell}/on`)) return "-";
  if (isSend(column)) {
    if (valueIn(state, `${cell}/level`) === null) return "o";
    return valueIn(state, `${cell}/on`) === true ? "m" : "z";
  }
  if (valueIn(state, `${cell}/on`) === true) return "m";
  return state.ruled.get(strip)?.by.includes(column) ? "r" : ".";
}
