/** The six places of the work, in its order, each with its views as tabs; what each view is called. */
import { type ShowState, valueIn } from "../data/show";
import { usePatched, useShow } from "../data/use";

export interface Tab {
  view: string;
  to: string;
  word: string;
  /** How many there are, and of what: "34 lines"; "" for nothing to count. */
  count: string;
  /** The same as short as it is under the hand: "34". */
  short: string;
}

export const PLACES = [
  { key: "stage", word: "Stage", views: ["lines", "patch", "outputs", "tracks", "check"] },
  {
    key: "mix",
    word: "Mix",
    views: ["routing", "assignments", "mixes", "effects", "sharing", "strip"],
  },
  { key: "hands", word: "Hands", views: ["banks", "dcas", "mutes", "gangs", "lifts"] },
  { key: "people", word: "People", views: ["cast", "miccheck", "ears", "crew"] },
  { key: "show", word: "Show", views: ["scenes", "run", "cues"] },
  { key: "hear", word: "Hear", views: ["hears", "wrong", "history"] },
] as const;

export type Place = (typeof PLACES)[number];

/** What each view is called, by the first part of its path; also what no place has. */
export const VIEW_WORD: Record<string, string> = {
  lines: "Lines",
  patch: "Patch",
  outputs: "Outputs",
  tracks: "Tracks",
  check: "Line check",
  routing: "Routing",
  assignments: "Assignments",
  mixes: "Mixes",
  effects: "Effects",
  sharing: "Shared gain",
  strip: "Strip",
  banks: "Banks",
  dcas: "DCAs",
  mutes: "Mutes",
  gangs: "Gangs and pairs",
  lifts: "Lifts",
  cast: "Cast",
  miccheck: "Mic check",
  ears: "Ears and wedges",
  scenes: "Scenes",
  run: "Run",
  cues: "Cues",
  hears: "Who hears what",
  wrong: "What is wrong",
  history: "History",
  paper: "Print or export",
  guide: "Guide",
  settings: "Settings",
  shows: "Shows",
  crew: "Crew",
  account: "Your account",
  accounts: "Accounts",
  backups: "Backups",
};

/** Addresses of before lead on to where that is now. */
export const MOVED: Readonly<Record<string, string>> = {
  findings: "/wrong",
  promises: "/wrong/promises",
};

export const viewOf = (path: string): string => path.split("/")[1] || "hears";

export const placeOf = (view: string): Place | undefined =>
  PLACES.find((place) => (place.views as readonly string[]).includes(view));

const of = (count: number, one: string, many = `${one}s`): string =>
  `${count} ${count === 1 ? one : many}`;

export type Counts = Readonly<Record<string, Pick<Tab, "count" | "short">>>;

/** What there is in each view, in words; looked at once for all places. */
export function useCounts(): Counts {
  const lines = useShow((state) => state.lines.length);
  const patched = usePatched(patchedLines);
  const checked = usePatched(checkedLines);
  const mixes = useShow((state) => state.mixes.length);
  const outputs = useOutputs();
  const engines = useShow(enginesFed);
  const dcas = useShow((state) => state.dcas.length);
  const banks = useShow((state) => state.banks.length);
  const mutes = useShow((state) => state.mute_groups.length);
  const gangs = useShow((state) => state.gangs.length);
  const pairs = useShow((state) => state.pairs.size);
  const lifts = useShow(liftsInUse);
  const wishes = useShow((state) => state.wishes.size);
  const shared = useShow(sharingGroups);
  const scenes = useShow((state) => state.scene_ids.length);
  const cues = useShow((state) => state.cue_ids.size);
  const parts = useShow((state) => state.parts.size);
  const ears = useShow(earMixes);
  const wrong = useWrong();
  const all = (count: number, one: string, many?: string) => ({
    count: count ? of(count, one, many) : "",
    short: count ? String(count) : "",
  });
  const part = (done: number, whole: number, did: string) =>
    whole ? { count: `${done} of ${whole} ${did}`, short: `${done} of ${whole}` } : NOTHING;
  return {
    lines: all(lines, "line"),
    patch: part(patched, lines, "plugged"),
    outputs: part(outputs.taken, outputs.all, "in use"),
    check: part(checked, lines, "checked"),
    tracks: all(wishes, "wish", "wishes"),
    mixes: all(mixes, "mix", "mixes"),
    effects: all(engines, "effect"),
    banks: all(banks, "bank"),
    dcas: all(dcas, "DCA"),
    mutes: all(mutes, "mute group"),
    gangs:
      gangs + pairs ? { count: `${of(gangs, "gang")}, ${of(pairs, "pair")}`, short: "" } : NOTHING,
    lifts: all(lifts, "lift"),
    sharing: all(shared, "group"),
    cast: all(parts, "part"),
    ears: all(ears, "mix for ears or a wedge", "mixes for ears and wedges"),
    scenes: all(scenes, "scene"),
    cues: all(cues, "cue"),
    wrong: wrong ? { count: `${wrong} to mend`, short: String(wrong) } : NOTHING,
  };
}

const NOTHING = { count: "", short: "" };

/** The tabs of a place, with what each has. */
export const tabsOf = (place: Place | undefined, counts: Counts): readonly Tab[] =>
  (place?.views ?? []).map((view) => ({
    view,
    to: `/${view}`,
    word: VIEW_WORD[view]!,
    ...(counts[view] ?? NOTHING),
  }));

const patchedLines = (state: ShowState) =>
  state.lines.filter((line) => valueIn(state, `line/${line}/socket`) !== null).length;

const checkedLines = (state: ShowState) =>
  state.lines.filter((line) => valueIn(state, `line/${line}/check`) !== "unchecked").length;

/** How many effect engines a mix feeds. */
const enginesFed = (state: ShowState): number => {
  let fed = 0;
  for (let n = 1; n <= (state.desk?.effect_engines ?? 0); n++)
    if (valueIn(state, `engine/${n}/source`) !== null) fed++;
  return fed;
};

/** How many mixes serve ears or wedges. */
const earMixes = (state: ShowState): number =>
  state.mixes.filter((n) => ["ears", "wedge"].includes(String(valueIn(state, `mix/${n}/serves`))))
    .length;

const sharingGroups = (state: ShowState): number => {
  let used = 0;
  for (let n = 1; n <= (state.desk?.sharing_groups ?? 0); n++)
    if (valueIn(state, `sharing/${n}/name`)) used++;
  return used;
};

const liftsInUse = (state: ShowState): number => {
  let used = 0;
  for (let n = 1; n <= (state.desk?.lifts ?? 0); n++)
    if (valueIn(state, `lift/${n}/backing`)) used++;
  return used;
};

/** How many output sockets there are, and how many carry something. */
export function useOutputs(): { taken: number; all: number } {
  const all = useShow((state) => state.desk?.boxes.reduce((sum, box) => sum + box.outputs, 0) ?? 0);
  return { taken: useShow((state) => state.outputs.size), all };
}

/** How much is wrong; null while that has not come yet. */
export const useWrong = (): number | null =>
  useShow((state) =>
    state.noticed ? state.findings.filter((one) => one.tone === "settle").length : null,
  );

const lastSeen = new Map<string, string>();

/** Where a place leads: to the tab that was seen there last, else its first. */
export const leadsTo = (place: Place): string => lastSeen.get(place.key) ?? `/${place.views[0]}`;

export function seen(path: string): void {
  const place = placeOf(viewOf(path));
  if (place) lastSeen.set(place.key, path);
}
