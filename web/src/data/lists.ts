/** What is in use, in the order in which it is drawn; followed move by move, never scanned anew. */
import type { Value } from "./types";

export type Values = ReadonlyMap<string, Value>;

export interface Lists {
  /** Numbers of the lines in the list's order, and of the strips in use. */
  lines: readonly number[];
  channels: readonly number[];
  returns: readonly number[];
  groups: readonly number[];
  mixes: readonly number[];
  matrices: readonly number[];
  /** Channels by what their source is: a socket, or a side of a bus. */
  fed: ReadonlyMap<string, readonly number[]>;
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
  /** Output sockets that carry something. */
  outputs: ReadonlySet<string>;
  /** Moves on whenever something moved that the patch is drawn from. */
  patched: number;
}

export const NO_LISTS: Lists = {
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
  banks: [],
  members: new Map(),
  fed: new Map(),
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

const BEARS_ON_USE =
  /^(?:(group|mix|matrix)\/(\d+)\/format|(channel|return)\/(\d+)\/(?:source|spare|name))$/;
const BEARS_ON_PATCH =
  /^(?:line\/|input\/[^/]+\/\d+\/phantom$|channel\/\d+\/(?:source|spare|on_spare|name|fixed)$|return\/\d+\/source$)/;

const MEMBERSHIP = /^(.+)\/((?:dca|mute_group|gang|promise)\/\d+)\/on$/;
const RULER = /^(dca|mute_group|gang|promise)\/(\d+)\/name$/;

const inUse = (values: Values, kind: string, number: number): boolean =>
  kind === "channel" || kind === "return"
    ? ["source", "spare", "name"].some((leaf) => values.get(`${kind}/${number}/${leaf}`))
    : (values.get(`${kind}/${number}/format`) ?? "unused") !== "unused";

/** Those of the lists that differ after the values at some addresses moved. Costs what moved, not what there is. */
export function listsAfter(values: Values, before: Lists, moved: Iterable<string>): Partial<Lists> {
  const after: { -readonly [list in keyof Lists]?: Lists[list] } = {};
  const strips = new Map<Kind, Set<number>>();
  const lines = new Set<number>();
  let outputs: Set<string> | null = null;
  let sources = false;
  const rulers = new Set<string>();
  const members = new Map<string, Set<string>>();
  const banks = new Set<number>();
  let pairs: Map<string, string> | null = null;
  const scenes = new Set<string>();
  for (const address of moved) {
    if (address.startsWith("scene/")) {
      if (/\/(number|removed)$/.test(address)) scenes.add(address.replace(/\/\w+$/, ""));
      continue;
    }
    if (address.startsWith("part/")) {
      if (!address.endsWith("/place")) continue;
      const parts = new Set(after.parts ?? before.parts);
      const part = address.slice(0, -"/place".length);
      if (Number(values.get(address) ?? 0) > 0) parts.add(part);
      else parts.delete(part);
      after.parts = parts;
      continue;
    }
    if (address.endsWith("/solo") && address !== "show/solo") {
      const soloed = new Set(after.soloed ?? before.soloed);
      const strip = address.slice(0, -"/solo".length);
      if (values.get(address) === true) soloed.add(strip);
      else soloed.delete(strip);
      after.soloed = soloed;
      continue;
    }
    if (address.endsWith("/device") && address.includes("/insert_")) {
      const inserts = new Set(after.inserts ?? before.inserts);
      if (values.get(address)) inserts.add(address);
      else inserts.delete(address);
      after.inserts = inserts;
      continue;
    }
    if (address.endsWith("/linked")) {
      const [kind, number] = address.split("/");
      pairs ??= new Map(before.pairs);
      const even = `${kind}/${Number(number) + 1}`;
      if (values.get(address) === true) pairs.set(even, `${kind}/${number}`);
      else pairs.delete(even);
      continue;
    }
    if (address.startsWith("bank/")) {
      banks.add(Number(address.split("/")[1]));
      continue;
    }
    const membership = MEMBERSHIP.exec(address);
    if (membership) {
      const [, member, ruler] = membership as unknown as [string, string, string];
      let held = members.get(ruler);
      if (!held) {
        held = new Set(before.members.get(ruler));
        members.set(ruler, held);
      }
      if (values.get(address) === true) held.add(member);
      else held.delete(member);
      rulers.add(ruler);
      continue;
    }
    if (RULER.test(address)) rulers.add(address.slice(0, -"/name".length));
    if (BEARS_ON_PATCH.test(address)) after.patched = before.patched + 1;
    if (address.startsWith("line/")) {
      if (address.endsWith("/place")) lines.add(Number(address.split("/")[1]));
      continue;
    }
    if (address.startsWith("output/")) {
      if (!address.endsWith("/source")) continue;
      outputs ??= new Set(before.outputs);
      if (values.get(address)) outputs.add(address.slice(0, -"/source".length));
      else outputs.delete(address.slice(0, -"/source".length));
      continue;
    }
    const match = BEARS_ON_USE.exec(address);
    if (!match) continue;
    const kind = (match[1] ?? match[3]) as Kind;
    if (kind === "channel" && address.endsWith("/source")) sources = true;
    let numbers = strips.get(kind);
    if (!numbers) {
      numbers = new Set(before[LISTED[kind]]);
      strips.set(kind, numbers);
    }
    const number = Number(match[2] ?? match[4]);
    if (inUse(values, kind, number)) numbers.add(number);
    else numbers.delete(number);
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
      if (!ruler.startsWith(`${kind}/`)) continue;
      const number = Number(ruler.split("/")[1]);
      const held = (after.members ?? before.members).get(ruler);
      if (held?.size || values.get(`${ruler}/name`)) numbers.add(number);
      else numbers.delete(number);
    }
    if (numbers.size !== list.length || list.some((number) => !numbers.has(number)))
      after[RULERS[kind]] = [...numbers].sort((a, b) => a - b);
  }
  if (sources) after.fed = fedBySource(values, after.channels ?? before.channels);
  return after;
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
  const starts = new Map([...moved].map((number) => [`bank/${number}/`, number]));
  for (const [address, value] of values) {
    if (!value || !address.startsWith("bank/")) continue;
    const number = starts.get(address.slice(0, address.indexOf("/", 5) + 1));
    if (number) used.add(number);
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
    const source = values.get(`channel/${channel}/source`);
    if (typeof source !== "string") continue;
    const others = fed.get(source);
    if (others) others.push(channel);
    else fed.set(source, [channel]);
  }
  return fed;
}
