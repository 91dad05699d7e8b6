/** The store: what this screen knows of the show. Plain TypeScript; components pick from it. */
import { createStore } from "zustand/vanilla";
import { Catalogue } from "./catalogue";
import type { Desk, Finding, Me, Meters, Preamp, Table, ToScreen, Value, Why } from "./types";

export type LinkStatus = "connecting" | "live" | "lost" | "gone";

export interface Notice {
  id: number;
  text: string;
  tone: "said" | "refused";
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
  /** Numbers of the lines in the list's order, the mixes in use, the channels in use. */
  lines: readonly number[];
  mixes: readonly number[];
  channels: readonly number[];
  table: Table | null;
  why: Why | null;
  findings: readonly Finding[];
  /** What the preamps make of the lines on them, by socket. */
  preamps: ReadonlyMap<string, Preamp>;
  /** Meters of the stage, while a line check watches it. */
  meters: Meters | null;
  /** The cell that Why answers for. */
  selected: { source: string; listener: string } | null;
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
  mixes: [],
  channels: [],
  table: null,
  why: null,
  findings: [],
  preamps: new Map(),
  meters: null,
  selected: null,
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

/** The lists that many views draw, found again only when something that bears on them moved. */
function lists(values: ShowState["values"]): Pick<ShowState, "lines" | "mixes" | "channels"> {
  const lines: [number, number][] = [];
  const mixes: number[] = [];
  const channels = new Set<number>();
  for (const [address, value] of Object.entries(values)) {
    const [kind, number, leaf, more] = address.split("/");
    if (more !== undefined) continue;
    if (kind === "line" && leaf === "place" && value) lines.push([Number(value), Number(number)]);
    if (kind === "mix" && leaf === "format" && value !== "unused") mixes.push(Number(number));
    if (kind === "channel" && (leaf === "source" || leaf === "name") && value)
      channels.add(Number(number));
  }
  lines.sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  return {
    lines: lines.map((pair) => pair[1]),
    mixes: mixes.sort((a, b) => a - b),
    channels: [...channels].sort((a, b) => a - b),
  };
}

const BEARS_ON_LISTS = /^(line\/\d+\/place|mix\/\d+\/format|channel\/\d+\/(source|name))$/;

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
  const after_fader = [...table.after_fader];
  const copied = new Set<number>();
  for (const cell of cells) {
    const row = rows.get(cell.source);
    const column = columns.get(cell.listener);
    if (row === undefined || column === undefined) continue;
    if (!copied.has(row)) {
      level_db[row] = [...(level_db[row] ?? [])];
      state[row] = [...(state[row] ?? [])];
      after_fader[row] = [...(after_fader[row] ?? [])];
      copied.add(row);
    }
    level_db[row]![column] = cell.level_db;
    state[row]![column] = cell.state;
    after_fader[row]![column] = cell.after_fader;
  }
  return { ...table, level_db, state, after_fader };
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
