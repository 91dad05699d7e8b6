/** What is in use, in the order in which it is drawn; followed move by move, never scanned anew. */
import {
  above,
  isOf,
  kindOf,
  lastOf,
  numberOf,
  type Thing,
  targetOf,
  thingOf,
  usedBy,
} from "./address";
import type { Value } from "./types";

export type Values = ReadonlyMap<string, Value>;

export interface InUse {
  /** Numbers of the lines in the list's order, and of the strips in use. */
  lines: readonly number[];
  channels: readonly number[];
  returns: readonly number[];
  groups: readonly number[];
  mixes: readonly number[];
  matrices: readonly number[];
  /** The channels that a socket or a side of a bus feeds now, ascending, as the core has them. */
  fed_by: ReadonlyMap<string, readonly number[]>;
  /** DCAs, mute groups, gangs and promises that have a name or a member. */
  dcas: readonly number[];
  mute_groups: readonly number[];
  gangs: readonly number[];
  promises: readonly number[];
  /** Scenes as `scene/<id>`, in the order of their numbers. */
  scene_ids: readonly string[];
  /** The parts that performers play, as `part/<id>`. */
  parts: ReadonlySet<string>;
  /** The odd side of each linked pair by its even one. */
  pairs: ReadonlyMap<string, string>;
  /** Banks that have a name or a strip. */
  banks: readonly number[];
  /** Direct members by their DCA, mute group, gang or promise ("dca/3"). */
  members: ReadonlyMap<string, ReadonlySet<string>>;
  /** Strips and DCAs whose solo key is pressed. */
  soloed: ReadonlySet<string>;
  /** Insert points that hold something, by the address of their device. */
  inserts: ReadonlySet<string>;
  /** Strips that share gain with others, each side of a pair. */
  sharers: ReadonlySet<string>;
  /** What is to be recorded, as `wish/<n>`; channels that the key for playback switched. */
  wishes: ReadonlySet<string>;
  /** Cues from outside, as `cue/<n>`. */
  cue_ids: ReadonlySet<string>;
  played: ReadonlySet<string>;
  /** Output sockets that carry something. */
  outputs: ReadonlySet<string>;
  /** Moves on whenever something moved that the patch is drawn from. */
  patched: number;
}

export const NOTHING_IN_USE: InUse = {
  lines: [],
  channels: [],
  returns: [],
  groups: [],
  mixes: [],
  matrices: [],
  dcas: [],
  mute_groups: [],
  gangs: [],
  promises: [],
  scene_ids: [],
  parts: new Set(),
  pairs: new Map(),
  soloed: new Set(),
  inserts: new Set(),
  sharers: new Set(),
  wishes: new Set(),
  cue_ids: new Set(),
  played: new Set(),
  banks: [],
  members: new Map(),
  fed_by: new Map(),
  outputs: new Set(),
  patched: 0,
};

const LISTED = {
  channel: "channels",
  return: "returns",
  group: "groups",
  mix: "mixes",
  matrix: "matrices",
} as const;
type Kind = keyof typeof LISTED;
const RULERS = {
  dca: "dcas",
  mute_group: "mute_groups",
  gang: "gangs",
  promise: "promises",
} as const;

const isListed = (kind: string): kind is Kind => kind in LISTED;
const isRuler = (kind: string): kind is keyof typeof RULERS => kind in RULERS;

// what says which source feeds a channel now
const FEEDING = ["source", "spare", "on_spare"];

function bearsOnPatch({ kind, leaf }: Thing): boolean {
  if (kind === "line") return true;
  if (kind === "input") return leaf === "phantom";
  if (kind === "return") return leaf === "source";
  return kind === "channel" && ["source", "spare", "on_spare", "name", "fixed"].includes(leaf);
}

/** Whether a strip is in use, by what its kind says of it. */
const inUse = (values: Values, strip: string): boolean =>
  usedBy(strip).some((leaf) => (values.get(`${strip}/${leaf}`) || "unused") !== "unused");

/** Those of the lists that differ after the values at some addresses moved. Costs what moved, not what there is. */
export function inUseAfter(values: Values, before: InUse, moved: Iterable<string>): Partial<InUse> {
  const after: { -readonly [list in keyof InUse]?: InUse[list] } = {};
  const strips = new Map<Kind, Set<number>>();
  const lines = new Set<number>();
  let outputs: Set<string> | undefined;
  let sources = false;
  const rulers = new Set<string>();
  const members = new Map<string, ReadonlySet<string>>();
  const banks = new Set<number>();
  let pairs: Map<string, string> | null = null;
  const scenes = new Set<string>();
  const isSet = (address: string) => Boolean(values.get(address));
  const inList = (address: string) => Number(values.get(address) ?? 0) > 0;
  for (const address of moved) {
    const at = thingOf(address);
    const { thing, kind, number, leaf } = at;
    if (kind === "scene") {
      if (leaf === "number" || leaf === "removed") scenes.add(thing);
      continue;
    }
    if (kind === "part") {
      if (leaf === "place") after.parts = has(after.parts ?? before.parts, thing, inList(address));
      continue;
    }
    if (kind === "wish") {
      if (leaf === "place")
        after.wishes = has(after.wishes ?? before.wishes, thing, inList(address));
      continue;
    }
    if (kind === "cue") {
      if (leaf === "comes")
        after.cue_ids = has(after.cue_ids ?? before.cue_ids, thing, isSet(address));
      continue;
    }
    if (leaf === "played") {
      after.played = has(after.played ?? before.played, thing, isSet(address));
      continue;
    }
    if (kind === "bank") {
      banks.add(number);
      continue;
    }
    if (kind === "output") {
      if (leaf === "source") outputs = has(outputs ?? before.outputs, thing, isSet(address));
      continue;
    }
    if (leaf === "solo" && kind !== "show") {
      after.soloed = has(after.soloed ?? before.soloed, thing, isSet(address));
      continue;
    }
    if (leaf === "insert_1/device" || leaf === "insert_2/device") {
      after.inserts = has(after.inserts ?? before.inserts, address, isSet(address));
      continue;
    }
    if (leaf === "sharing/group") {
      after.sharers = has(after.sharers ?? before.sharers, thing, isSet(address));
      continue;
    }
    if (leaf === "linked") {
      pairs ??= new Map(before.pairs);
      if (isSet(address)) pairs.set(above(thing), thing);
      else pairs.delete(above(thing));
      continue;
    }
    const ruler = lastOf(address) === "on" ? targetOf(address) : "";
    if (isRuler(kindOf(ruler)) && leaf === `${ruler}/on`) {
      members.set(
        ruler,
        has(members.get(ruler) ?? before.members.get(ruler), thing, isSet(address)),
      );
      rulers.add(ruler);
      continue;
    }
    if (isRuler(kind) && leaf === "name") rulers.add(thing);
    if (bearsOnPatch(at)) after.patched = before.patched + 1;
    if (kind === "line" && leaf === "place") lines.add(number);
    if (kind === "channel" && FEEDING.includes(leaf)) sources = true;
    if (!isListed(kind) || !usedBy(thing).includes(leaf)) continue;
    const listed = strips.get(kind) ?? new Set(before[LISTED[kind]]);
    strips.set(kind, listed);
    if (inUse(values, thing)) listed.add(number);
    else listed.delete(number);
  }
  for (const [kind, numbers] of strips) {
    const list = before[LISTED[kind]];
    if (numbers.size === list.length && list.every((number) => numbers.has(number))) continue;
    after[LISTED[kind]] = [...numbers].sort((a, b) => a - b);
  }
  if (lines.size > 0) after.lines = linesInOrder(values, new Set([...before.lines, ...lines]));
  if (scenes.size > 0) after.scene_ids = scenesInOrder(values, before.scene_ids, scenes);
  if (outputs) after.outputs = outputs;
  if (banks.size > 0) after.banks = banksInUse(values, before.banks, banks);
  if (members.size > 0) after.members = new Map([...before.members, ...members]);
  if (pairs) after.pairs = pairs;
  for (const kind of ["dca", "mute_group", "gang", "promise"] as const) {
    const list = before[RULERS[kind]];
    const numbers = new Set(list);
    for (const ruler of rulers) {
      if (!isOf(ruler, kind)) continue;
      const number = numberOf(ruler);
      const held = (after.members ?? before.members).get(ruler);
      if (held?.size || values.get(`${ruler}/name`)) numbers.add(number);
      else numbers.delete(number);
    }
    if (numbers.size !== list.length || list.some((number) => !numbers.has(number)))
      after[RULERS[kind]] = [...numbers].sort((a, b) => a - b);
  }
  if (sources) after.fed_by = fedBySource(values, after.channels ?? before.channels);
  return after;
}

/** A set with one more, or without it. */
function has(of: ReadonlySet<string> | undefined, one: string, there: boolean): Set<string> {
  const found = new Set(of);
  if (there) found.add(one);
  else found.delete(one);
  return found;
}

/** Those that were in the order and those that moved, by their numbers. */
function scenesInOrder(
  values: Values,
  before: readonly string[],
  moved: ReadonlySet<string>,
): readonly string[] {
  const number = (scene: string) => Number(values.get(`${scene}/number`) ?? 0);
  const there = (scene: string) => number(scene) > 0 && values.get(`${scene}/removed`) !== true;
  return [...new Set([...before, ...moved])].filter(there).sort((a, b) => number(a) - number(b));
}

/** A bank is in use while it has a name or a strip: those that moved are looked through again. */
function banksInUse(
  values: Values,
  before: readonly number[],
  moved: ReadonlySet<number>,
): readonly number[] {
  const used = new Set([...before].filter((number) => !moved.has(number)));
  for (const [address, value] of values) {
    if (!value || !isOf(address, "bank")) continue;
    const number = numberOf(address);
    if (moved.has(number)) used.add(number);
  }
  return [...used].sort((a, b) => a - b);
}

function linesInOrder(values: Values, lines: ReadonlySet<number>): number[] {
  const place = (line: number) => Number(values.get(`line/${line}/place`) ?? 0);
  return [...lines]
    .filter((line) => place(line) !== 0)
    .sort((a, b) => place(a) - place(b) || a - b);
}

function fedBySource(
  values: Values,
  channels: readonly number[],
): ReadonlyMap<string, readonly number[]> {
  const fed = new Map<string, number[]>();
  for (const channel of channels) {
    const leaf = values.get(`channel/${channel}/on_spare`) === true ? "spare" : "source";
    const source = values.get(`channel/${channel}/${leaf}`);
    if (typeof source !== "string") continue;
    const others = fed.get(source);
    if (others) others.push(channel);
    else fed.set(source, [channel]);
  }
  return fed;
}
