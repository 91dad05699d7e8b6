/** The work in its order, and how far each part of it is. */
import { type ShowState, valueIn } from "../data/show";
import type { Judged } from "../data/types";
import { usePatched, useShow } from "../data/use";

export interface Part {
  to: string;
  word: string;
  count?: string;
}

export const GROUPS = ["Prepare", "Play", "Hear"] as const;

/** What each view is called, by the first part of its path. */
export const VIEW_WORD: Record<string, string> = {
  lines: "Lines",
  patch: "Patch",
  strip: "Strip",
  routing: "Routing",
  mixes: "Mixes",
  effects: "Effects",
  outputs: "Outputs",
  dcas: "DCAs",
  banks: "Banks",
  mutes: "Mute groups",
  lifts: "Lifts",
  gangs: "Gangs",
  scenes: "Scenes",
  run: "Run",
  check: "Line check",
  cast: "Cast",
  miccheck: "Mic check",
  paper: "Paper",
  guide: "Guide",
  hears: "Who hears what",
  promises: "Promises",
  findings: "Findings",
  shows: "Shows",
  history: "History",
};

export const viewOf = (path: string): string => path.split("/")[1] || "hears";

const patchedLines = (state: ShowState) =>
  state.lines.filter((line) => valueIn(state, `line/${line}/socket`) !== null).length;

const checkedLines = (state: ShowState) =>
  state.lines.filter((line) => valueIn(state, `line/${line}/check`) !== "unchecked").length;

export function useWork(): Record<(typeof GROUPS)[number], Part[]> {
  const lines = useShow((state) => state.lines.length);
  const patched = usePatched(patchedLines);
  const checked = usePatched(checkedLines);
  const mixes = useShow(
    (state) => state.mixes.length + state.groups.length + state.matrices.length,
  );
  const outputs = useOutputs();
  const dcas = useShow((state) => state.dcas.length);
  const banks = useShow((state) => state.banks.length);
  const mutes = useShow((state) => state.mute_groups.length);
  const gangs = useShow((state) => state.gangs.length + state.pairs.size);
  const lifts = useShow(liftsInUse);
  const scenes = useShow((state) => state.scene_ids.length);
  const parts = useShow((state) => state.parts.size);
  const promises = useShow((state) => promiseCount(state.judged));
  const effects = useShow((state) => `${enginesFed(state)}/${state.desk?.effect_engines ?? 0}`);
  const part = (view: string, count?: string): Part => ({
    to: `/${view}`,
    word: VIEW_WORD[view]!,
    count,
  });
  return {
    Prepare: [
      part("lines", String(lines)),
      part("patch", `${patched}/${lines}`),
      part("strip"),
      part("routing"),
      part("mixes", String(mixes)),
      part("effects", effects),
      part("outputs", `${outputs.taken}/${outputs.all}`),
      part("check", `${checked}/${lines}`),
      part("paper"),
    ],
    Play: [
      part("dcas", String(dcas)),
      part("mutes", String(mutes)),
      part("gangs", String(gangs)),
      part("lifts", lifts ? String(lifts) : undefined),
      part("banks", String(banks)),
      part("cast", parts ? String(parts) : undefined),
      part("miccheck"),
      part("scenes", scenes ? String(scenes) : undefined),
      part("run"),
    ],
    Hear: [part("hears"), part("promises", promises), part("history")],
  };
}

/** How many effect engines a mix feeds. */
const enginesFed = (state: ShowState): number => {
  let fed = 0;
  for (let n = 1; n <= (state.desk?.effect_engines ?? 0); n++)
    if (valueIn(state, `engine/${n}/source`) !== null) fed++;
  return fed;
};

const liftsInUse = (state: ShowState): number => {
  let used = 0;
  for (let n = 1; n <= (state.desk?.lifts ?? 0); n++)
    if (valueIn(state, `lift/${n}/backing`)) used++;
  return used;
};

/** How many promises are kept, of how many; nothing while there are none. */
const promiseCount = (judged: readonly Judged[]): string | undefined => {
  const kept = judged.filter((one) => one.breaking === 0).length;
  return judged.length === 0 ? undefined : `${kept}/${judged.length}`;
};

/** How many output sockets there are, and how many carry something. */
export function useOutputs(): { taken: number; all: number } {
  const all = useShow((state) => state.desk?.boxes.reduce((sum, box) => sum + box.outputs, 0) ?? 0);
  return { taken: useShow((state) => state.outputs.size), all };
}

export function useFindings(): { settle: number; notes: number } {
  const settle = useShow((state) => state.findings.filter((one) => one.tone === "settle").length);
  return { settle, notes: useShow((state) => state.findings.length) - settle };
}
