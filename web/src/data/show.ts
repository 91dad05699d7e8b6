/** The store: what this screen knows of the show. Plain TypeScript; components pick from it. */

import { createStore } from "zustand/vanilla";
import { beside, lastOf } from "./address";
import { Catalogue } from "./catalogue";
import { type Fade, pointAt } from "./fade";
import { type InUse, inUseAfter, NOTHING_IN_USE, type Values } from "./inUse";
import { NO_SHARES, type Shares, withShares } from "./sharing";
import type {
  Alike,
  Ask,
  Beside,
  CallHere,
  Company,
  CueList,
  CueMachine,
  CuesHere,
  Curves,
  Desk,
  Ears,
  Finding,
  FirstStep,
  Fitting,
  Held,
  Judged,
  Lift,
  Loudest,
  Me,
  Meters,
  MicCheck,
  PersonHere,
  PlanFound,
  Planning,
  Preamp,
  Reach,
  Remedy,
  Role,
  Ruled,
  Scene,
  SceneList,
  Sharing,
  Silent,
  StripPath,
  Table,
  ToScreen,
  Tracks,
  Value,
  Why,
} from "./types";
import type { Unsent } from "./unsent";

export type LinkStatus = "connecting" | "live" | "lost" | "gone";

export interface Notice {
  id: number;
  text: string;
  tone: "said" | "refused";
  /** When, by this screen's clock, in ms since 1970. */
  at: number;
}

/** Several edits that would each do what was asked for, and why it was not simply done. */
export interface Choice {
  message: string;
  ways: readonly Remedy[];
  /** How the hand asked: what was taken together with it still is. */
  by_hand?: Extract<Ask, { action: "moves" }>["by_hand"];
}

export interface ShowState extends InUse {
  me: Me | null;
  /** What its person may do in the show. */
  role: Role | null;
  desk: Desk | null;
  catalogue: Catalogue | null;
  status: LinkStatus;
  /** Edits that the server has not yet confirmed, and while it is away what it is asked too. */
  waiting: number;
  trouble: string;
  revision: number | null;
  /** What differs from its default. Moved in place: compare `revision`, or pick single values. */
  values: Values;
  table: Table | null;
  why: Why | null;
  /** Who moved last what somebody will ask about: keys that no remedy may move, feeds that break promises. */
  setBy: Readonly<Record<string, { by: string; at: string }>>;
  /** Who is loudest at the listener that Why answers for. */
  loudest: Loudest | null;
  /** Who else has the show open. */
  others: readonly PersonHere[];
  /** Screens that are here beside those that are named. */
  othersMore: number;
  /** Edits that a closed page had not sent, while others moved on: a person says what becomes of them. */
  unsent: readonly Unsent[];
  /** What strips and DCAs truly come to that something rules. */
  ruled: ReadonlyMap<string, Ruled>;
  /** What unfolds of what is unfolded on the bays. */
  unfolded: Readonly<Record<string, readonly string[]>>;
  /** Meters of the channels in dBFS, while the banks watch them. */
  levels: Readonly<Record<string, number>>;
  /** The strip that is looked at from top to bottom, and its curves. */
  path: StripPath | null;
  curves: Curves | null;
  /** Every singer's step for every listener, while lifts are looked at. */
  lifts: readonly Lift[] | null;
  /** Groups that share gain, and their shares as they are measured, while they are looked at. */
  sharing: Sharing | null;
  shares: Shares;
  /** What is recorded, while it is looked at; the plan that was asked for: how far, and what came. */
  /** Cues from outside: the list, whether they are armed and what came, and the stand-in machine. */
  cueList: CueList | null;
  cues: CuesHere | null;
  machine: CueMachine | null;
  tracks: Tracks | null;
  planning: Planning | null;
  plan: PlanFound | null;
  /** The scenes in their order, and the pins, while they are looked at. */
  scenes: SceneList | null;
  /** The scene that is looked at, with what its recall would do; and what it has of one strip. */
  scene: Scene | null;
  held: Held | null;
  /** Of the update of many scenes that is looked at: who hears it in which; told bit by bit. */
  hearing: Hearing | null;
  /** Parts, casts and performers; the entries of the mic check; who is on the channel looked at. */
  company: Company | null;
  micCheck: MicCheck | null;
  fitting: Fitting | null;
  /** Numbers on their way to where they stand already, by address. */
  fading: ReadonlyMap<string, Fade>;
  /** How far the DCA or mute group reaches that is looked at. */
  reach: Reach | null;
  /** How many cells the key of each mute group closes, while such keys are drawn. */
  closing: Readonly<Record<string, number>>;
  /** Who is silent in the house, and why; null until it is told. */
  silent: Silent | null;
  /** How every mix for ears and wedges stands; two of them side by side. */
  ears: Ears | null;
  /** Performers who call, until somebody has seen it. */
  calls: readonly CallHere[];
  beside: Beside | null;
  findings: readonly Finding[];
  /** Those of them that are so many of one kind that they are told as one. */
  alike: readonly Alike[];
  /** Whether findings have come at all: before, nothing is known of what is wrong. */
  noticed: boolean;
  /** What is done of the first steps, in the order of the work. */
  steps: readonly FirstStep[];
  /** What must hold of who reaches whom, judged by the core. */
  judged: readonly Judged[];
  /** What the preamps make of the lines on them, by socket. */
  preamps: ReadonlyMap<string, Preamp>;
  /** Meters of the stage, while a line check watches it. */
  meters: Meters | null;
  /** Hands move what they hold alone, and no gang follows. */
  alone: boolean;
  /** The cell that Why answers for. */
  selected: { source: string; listener: string } | null;
  /** What was asked for and can be done in several ways, for a person to choose. */
  choice: Choice | null;
  notices: readonly Notice[];
  /** Everything that was told since the page was opened, as far as somebody may want to read it. */
  told: readonly Notice[];
}

export const store = createStore<ShowState>(() => ({
  me: null,
  role: null,
  desk: null,
  catalogue: null,
  status: "connecting",
  waiting: 0,
  trouble: "",
  revision: null,
  values: new Map(),
  ...NOTHING_IN_USE,
  table: null,
  why: null,
  setBy: {},
  loudest: null,
  others: [],
  othersMore: 0,
  unsent: [],
  ruled: new Map(),
  reach: null,
  closing: {},
  silent: null,
  ears: null,
  calls: [],
  beside: null,
  path: null,
  curves: null,
  lifts: null,
  sharing: null,
  shares: NO_SHARES,
  cueList: null,
  cues: null,
  machine: null,
  tracks: null,
  planning: null,
  plan: null,
  scenes: null,
  scene: null,
  held: null,
  hearing: null,
  company: null,
  micCheck: null,
  fitting: null,
  fading: new Map(),
  unfolded: {},
  levels: {},
  findings: [],
  alike: [],
  noticed: false,
  steps: [],
  judged: [],
  preamps: new Map(),
  meters: null,
  alone: false,
  selected: null,
  choice: null,
  notices: [],
  told: [],
}));

export function setDesk(me: Me, desk: Desk): void {
  const role = me.shows.find((show) => show.id === desk.show.id)?.role ?? null;
  store.setState({ me, role, desk, catalogue: new Catalogue(desk) });
}

/** The value at an address, or the catalogue's default. */
export function valueIn(state: ShowState, address: string): Value {
  const value = state.values.get(address);
  return value === undefined ? (state.catalogue?.defaultOf(address) ?? null) : value;
}

/** The colour of a strip; `none` for what has none, as house, mono and effect engines. */
export function colourOf(state: ShowState, strip: string, none = "sand"): string {
  const address = `${strip}/colour`;
  return state.catalogue?.has(address) ? String(valueIn(state, address)) : none;
}

/** Values moved in place: the map stays the same, `revision` says that it moved on. */
function withValues(state: ShowState, moved: Record<string, Value>): Partial<ShowState> {
  const values = state.values as Map<string, Value>;
  for (const address in moved) values.set(address, moved[address]!);
  return inUseAfter(values, state, Object.keys(moved));
}

/** What a message from the server changes here. `moved` with a gap is for the link to see to. */
export function received(message: ToScreen): void {
  store.setState((state): Partial<ShowState> => {
    switch (message.type) {
      case "snapshot": {
        const values = new Map(Object.entries(message.values as Record<string, Value>));
        // another show, or this one anew: what was put together from the patch is put together again
        const nothing = { ...NOTHING_IN_USE, patched: state.patched + 1 };
        return {
          revision: message.revision,
          values,
          ...nothing,
          ...inUseAfter(values, nothing, values.keys()),
        };
      }
      case "moved":
        if (state.revision !== null && message.revision <= state.revision) return {};
        return {
          revision: message.revision,
          ...withValues(state, message.values as Record<string, Value>),
          fading: withoutFades(state.fading, message.values),
        };
      case "table":
        return { table: message };
      case "cells":
        return { table: state.table && withCells(state.table, message.cells) };
      case "why":
        return { why: message };
      case "set_by":
        return { setBy: { ...state.setBy, ...message.keys } };
      case "loudest":
        return { loudest: message };
      case "ruled":
        return { ruled: withRuled(message.whole ? new Map() : state.ruled, message.strips) };
      case "unfolded":
        return { unfolded: message.strips };
      case "found": // whoever typed it waits for it
        return {};
      case "levels":
        return { levels: message.channels };
      case "strip":
        return { path: message };
      case "curves":
        return { curves: message };
      case "lifts":
        return { lifts: message.lifts };
      case "sharing":
        return { sharing: message };
      case "shares":
        return { shares: withShares(state.shares, message) };
      case "cue_list":
        return { cueList: message };
      case "cues":
        return { cues: message };
      case "machine":
        return { machine: message };
      case "tracks":
        return { tracks: message };
      case "planning": // of another search than the newest: that is on its way
        return message.id === state.planning?.id ? { planning: message } : {};
      case "plan_found":
        return message.id === state.planning?.id ? { planning: null, plan: message } : {};
      case "shares_past":
        return { shares: { ...NO_SHARES, minute: message.shares, slot: message.slot } };
      case "scenes":
        return { scenes: message };
      case "scene":
        return { scene: message };
      case "held":
        return { held: message };
      case "hearing":
        return { hearing: withHearing(state.hearing, message) };
      case "company":
        return { company: message };
      case "mic_check":
        return { micCheck: message };
      case "fitting":
        return { fitting: message };
      case "fading":
        return { fading: withFades(state.fading, message.fades) };
      case "silent":
        return { silent: message };
      case "calls":
        return { calls: message.calls };
      case "ears":
        return { ears: message };
      case "beside":
        return { beside: message };
      case "closing":
        return { closing: message.cells };
      case "reach":
        return { reach: message };
      case "present":
        return {
          others: message.others.filter((one) => one.screen !== message.you),
          othersMore: message.more,
        };
      case "noticed":
        return {
          findings: message.findings,
          alike: message.alike,
          noticed: true,
          steps: message.steps,
          judged: message.promises,
          preamps: new Map(message.preamps.map((preamp) => [preamp.socket, preamp])),
        };
      case "meters":
        return { meters: message };
      case "you":
        return { role: message.role };
      case "trouble":
        return { trouble: message.message };
      case "done":
      case "refused":
      case "preview":
      case "kept":
      case "pong":
        return {};
    }
  });
}

/** Who hears an update, scene by scene: null where the scene cannot be recalled. */
export interface Hearing {
  id: string;
  scenes: ReadonlyMap<string, readonly string[] | null>;
}

function withHearing(
  before: Hearing | null,
  { id, scenes }: Extract<ToScreen, { type: "hearing" }>,
): Hearing {
  const known = before?.id === id ? before.scenes : [];
  return {
    id,
    scenes: new Map([...known, ...scenes.map((one) => [one.scene, one.hearing] as const)]),
  };
}

/** Those that set out now beside those that are still on their way. */
function withFades(
  before: ReadonlyMap<string, Fade>,
  fades: Extract<ToScreen, { type: "fading" }>["fades"],
): ReadonlyMap<string, Fade> {
  const begun = performance.now();
  const still = [...before].filter(([, fade]) => pointAt(fade, begun) !== undefined);
  return new Map([
    ...still,
    ...fades.map(({ address, points }) => [address, { begun, points }] as const),
  ]);
}

/** What is moved is no longer on its way, unless a plan for it follows; a feed's switch moves its level. */
function withoutFades(
  before: ReadonlyMap<string, Fade>,
  moved: Readonly<Record<string, unknown>>,
): ReadonlyMap<string, Fade> {
  if (before.size === 0) return before;
  const rests = (address: string) =>
    address in moved || (lastOf(address) === "level" && beside(address, "on") in moved);
  const still = [...before].filter(([address]) => !rests(address));
  return still.length === before.size ? before : new Map(still);
}

function withRuled(
  before: ReadonlyMap<string, Ruled>,
  strips: Readonly<Record<string, Ruled | null>>,
): ReadonlyMap<string, Ruled> {
  const ruled = new Map(before);
  for (const strip in strips) {
    const by = strips[strip];
    if (by) ruled.set(strip, by);
    else ruled.delete(strip);
  }
  return ruled;
}

function withCells(table: Table, cells: Extract<ToScreen, { type: "cells" }>["cells"]): Table {
  const rows = placesOf(table.sources);
  const columns = placesOf(table.listeners);
  const level_db = [...table.level_db];
  const state = [...table.state];
  const way = [...table.way];
  const copied = new Set<number>();
  for (const cell of cells) {
    const row = rows.get(cell.source);
    const column = columns.get(cell.listener);
    if (row === undefined || column === undefined) continue;
    if (!copied.has(row)) {
      level_db[row] = [...(level_db[row] ?? [])];
      state[row] = [...(state[row] ?? [])];
      way[row] = [...(way[row] ?? [])];
      copied.add(row);
    }
    level_db[row]![column] = cell.level_db;
    state[row]![column] = cell.state;
    way[row]![column] = cell.way;
  }
  return { ...table, level_db, state, way };
}

const PLACES = new WeakMap<readonly string[], ReadonlyMap<string, number>>();

/** Where each name stands in a list; worked out once for a list. */
export function placesOf(names: readonly string[]): ReadonlyMap<string, number> {
  let places = PLACES.get(names);
  if (!places) {
    places = new Map(names.map((name, index) => [name, index]));
    PLACES.set(names, places);
  }
  return places;
}

let nextNotice = 1;
const MOST_TOLD = 100;

/** Tell something that passes, once it was seen: what was done, or why it was refused. */
export function notify(text: string, tone: Notice["tone"] = "said"): void {
  const notice = { id: nextNotice++, text, tone, at: Date.now() };
  store.setState((state) => ({
    // a newer refusal takes the place of the one before
    notices: [...state.notices.filter((one) => tone === "said" || one.tone === "said"), notice],
    told: [...state.told.slice(1 - MOST_TOLD), notice],
  }));
}

export function dismiss(id: number): void {
  store.setState((state) => ({ notices: state.notices.filter((notice) => notice.id !== id) }));
}
