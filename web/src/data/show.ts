/** The store: what this screen knows of the show. Plain TypeScript; components pick from it. */
import { createStore } from "zustand/vanilla";
import { Catalogue } from "./catalogue";
import type { Desk, Finding, Me, Meters, Preamp, Remedy, Table, ToScreen, Value, Why } from "./types";

export type LinkStatus = "connecting" | "live" | "lost" | "gone";

export interface Notice {
  id: number;
  text: string;
  tone: "said" | "refused";
}

/** Several edits that would each do what was asked for, and why it was not simply done. */
export interface Choice {
  message: string;
  ways: readonly Remedy[];
}

export interface ShowState {
  me: Me | null;
  desk: Desk | null;
  catalogue: Catalogue | null;
  status: LinkStatus;
  /** Edits that the server has not yet confirmed. */
  waiting: number;
  trouble: string;
  revision: number | null;
  values: Readonly<Record<string, Value>>;
  /** Numbers of the lines in the list's order, and of the strips in use. */
  lines: readonly number[];
  channels: readonly number[];
  returns: readonly number[];
  groups: readonly number[];
  mixes: readonly number[];
  matrices: readonly number[];
  table: Table | null;
  why: Why | null;
  findings: readonly Finding[];
  /** What the preamps make of the lines on them, by socket. */
  preamps: ReadonlyMap<string, Preamp>;
  /** Meters of the stage, while a line check watches it. */
  meters: Meters | null;
  /** The cell that Why answers for. */
  selected: { source: string; listener: string } | null;
  /** What was asked for and can be done in several ways, for a person to choose. */
  choice: Choice | null;
  notices: readonly Notice[];
}

export const store = createStore<ShowState>(() => ({
  me: null,
  desk: null,
  catalogue: null,
  status: "connecting",
  waiting: 0,
  trouble: "",
  revision: null,
  values: {},
  lines: [],
  channels: [],
  returns: [],
  groups: [],
  mixes: [],
  matrices: [],
  table: null,
  why: null,
  findings: [],
  preamps: new Map(),
  meters: null,
  selected: null,
  choice: null,
  notices: [],
}));

export function setDesk(me: Me, desk: Desk): void {
  store.setState({ me, desk, catalogue: new Catalogue(desk) });
}

/** The value at an address, or the catalogue's default. */
export function valueOf(state: ShowState, address: string): Value {
  const value = state.values[address];
  return value === undefined ? (state.catalogue?.defaultOf(address) ?? null) : value;
}

type Lists = Pick<ShowState, "lines" | "channels" | "returns" | "groups" | "mixes" | "matrices">;
const IN_USE = { channel: "channels", return: "returns", group: "groups", mix: "mixes", matrix: "matrices" } as const;

/** The lists that many views draw, found again only when something that bears on them moved. */
function lists(values: ShowState["values"]): Lists {
  const lines: [number, number][] = [];
  const used = {
    channels: new Set<number>(),
    returns: new Set<number>(),
    groups: new Set<number>(),
    mixes: new Set<number>(),
    matrices: new Set<number>(),
  };
  for (const [address, value] of Object.entries(values)) {
    if (!BEARS_ON_LISTS.test(address)) continue;
    const [kind, number, leaf] = address.split("/");
    if (kind === "line") {
      if (value) lines.push([Number(value), Number(number)]);
    } else if (leaf === "format" ? value !== "unused" : value) {
      used[IN_USE[kind as keyof typeof IN_USE]].add(Number(number));
    }
  }
  lines.sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const sorted = (numbers: Set<number>) => [...numbers].sort((a, b) => a - b);
  return {
    lines: lines.map((pair) => pair[1]),
    channels: sorted(used.channels),
    returns: sorted(used.returns),
    groups: sorted(used.groups),
    mixes: sorted(used.mixes),
    matrices: sorted(used.matrices),
  };
}

const BEARS_ON_LISTS =
  /^(line\/\d+\/place|(group|mix|matrix)\/\d+\/format|(channel|return)\/\d+\/(source|spare|name))$/;

function withValues(state: ShowState, values: Record<string, Value>): Partial<ShowState> {
  const grown = { ...state.values, ...values };
  const bears = Object.keys(values).some((address) => BEARS_ON_LISTS.test(address));
  return { values: grown, ...(bears ? lists(grown) : {}) };
}

/** What a message from the server changes here. `moved` with a gap is for the link to see to. */
export function received(message: ToScreen): void {
  store.setState((state): Partial<ShowState> => {
    switch (message.type) {
      case "snapshot": {
        const values = message.values as Record<string, Value>;
        return { revision: message.revision, values, ...lists(values) };
      }
      case "moved":
        if (state.revision !== null && message.revision <= state.revision) return {};
        return {
          revision: message.revision,
          ...withValues(state, message.values as Record<string, Value>),
        };
      case "table":
        return { table: message };
      case "cells":
        return { table: state.table && withCells(state.table, message.cells) };
      case "why":
        return { why: message };
      case "noticed":
        return {
          findings: message.findings,
          preamps: new Map(message.preamps.map((preamp) => [preamp.socket, preamp])),
        };
      case "meters":
        return { meters: message };
      case "trouble":
        return { trouble: message.message };
      case "done":
      case "refused":
      case "preview":
        return {};
    }
  });
}

function withCells(table: Table, cells: Extract<ToScreen, { type: "cells" }>["cells"]): Table {
  const rows = new Map(table.sources.map((source, index) => [source, index]));
  const columns = new Map(table.listeners.map((listener, index) => [listener, index]));
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

let nextNotice = 1;

/** Tell something that passes: what was done, or why it was refused. */
export function notify(text: string, tone: Notice["tone"] = "said"): void {
  const id = nextNotice++;
  store.setState((state) => ({ notices: [...state.notices.slice(-2), { id, text, tone }] }));
  setTimeout(() => dismiss(id), tone === "refused" ? 9000 : 3500);
}

export function dismiss(id: number): void {
  store.setState((state) => ({ notices: state.notices.filter((notice) => notice.id !== id) }));
}
