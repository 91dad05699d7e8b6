/**
 * A page without a server: a desk as the server tells it, values and messages as they would come,
 * and a link that notes what it is asked.
 */
import { act, cleanup, configure, fireEvent, render, screen } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, expect, vi } from "vitest";
import { Router } from "wouter";
import { memoryLocation } from "wouter/memory-location";
import desk from "../data/generated/desk.json";
import { Link } from "../data/link";
import { received, setDesk, store } from "../data/show";
import type { Ask, Desk, Found, FromScreen, Move, Preview, ToScreen, Value } from "../data/types";
import { LinkContext } from "../data/use";
import { Views } from "../Views";
import { leftRunning } from "./timers";

/** The desk that it pretends to have: 24 channels, 9 mixes. */
export const DESK = desk as unknown as Desk;
const ME = {
  name: "engineer",
  administrator: true,
  habits: {},
  shows: [{ ...DESK.show, role: "owner" as const }],
  desks: [],
};

/** What the link was asked to do, in order. */
export const done = vi.fn((_ask: Ask, _how?: object): Promise<boolean> => Promise.resolve(true));
export const asks = (): Ask[] => done.mock.calls.map(([ask]) => ask);

/** What an edit would do: a test says it beforehand. */
export const tried = vi.fn((_ask: Ask): Promise<Preview | string> => new Promise(() => {}));

/** What answers a wish: a test says it beforehand. */
export const wished = vi.fn(
  (_text: string, _view: string): Promise<Found | null> => new Promise(() => {}),
);

/** What the views have the server watch. */
export const watched = vi.fn((_wanted: Partial<Extract<FromScreen, { type: "watch" }>>) => {});

/** What the server is asked over HTTP, and answers: by a part of the path, that named last; else it is away. */
export const answers = new Map<string, unknown>();
export const fetched = vi.fn((path: string, _how?: RequestInit): Promise<Response> => {
  for (const [part, answer] of [...answers].reverse())
    if (path.includes(part)) return Promise.resolve(Response.json(answer));
  return Promise.reject(new Error("away"));
});

/** What the stand-in stage is asked to feed. */
export const fed = vi.fn((_line: number, _signal: string) => {});

/** What else was said over the link: the method, and what it was given. */
export const sent = vi.fn((_what: string, _given?: unknown) => {});

const LINK = {
  armCues: (mode: unknown) => sent("armCues", mode),
  setCueWay: (way: unknown) => sent("setCueWay", way),
  setCueOnce: (ms: unknown) => sent("setCueOnce", ms),
  undoCue: (told: unknown) => sent("undoCue", told),
  cueMachine: (what: unknown) => sent("cueMachine", what),
  do: done,
  put: Link.prototype.put,
  type: Link.prototype.type,
  try: tried,
  find: wished,
  watch: watched,
  undo: vi.fn(() => Promise.resolve(true)),
  redo: vi.fn(() => Promise.resolve(true)),
  letGo: vi.fn(),
  draw: vi.fn(),
  recorder: vi.fn(),
  planTracks: () =>
    store.setState({
      plan: null,
      planning: { type: "planning", id: "search", what: "", at: 0, of: 0 },
    }),
  feed: fed,
} as unknown as Link;

/** A show of these values, known to the page; then messages, as the server would send them. */
export function pretend(values: Record<string, Value>, ...messages: ToScreen[]): void {
  store.setState(store.getInitialState(), true);
  setDesk(ME, DESK);
  store.setState({ status: "live" });
  received({ type: "snapshot", revision: 1, values });
  for (const message of messages) received(message);
}

/** Somebody's move reaches this page. */
export function moved(values: Record<string, Value>): void {
  const before = store.getState().revision ?? 0;
  act(() => received({ type: "moved", before, revision: before + 1, values }));
}

/** Something within a page that has the link, at an address. */
export function inPage(part: ReactNode, place = memoryLocation({ path: "/" })): ReactNode {
  return (
    <LinkContext value={LINK}>
      <Router hook={place.hook} searchHook={place.searchHook}>
        {part}
      </Router>
    </LinkContext>
  );
}

/** Draw the view at an address; gives where the page then is, and a way elsewhere. */
export function draw(path: string): { at: () => string; go: (path: string) => void } {
  const [bare, search = ""] = path.split("?");
  const place = memoryLocation({ path: bare!, searchPath: search, record: true });
  render(inPage(<Views />, place));
  return { at: () => place.history.at(-1)!, go: place.navigate };
}

/** Moves of an ask as `address: value or words`. */
export const movesOf = (ask: Ask): Record<string, Move["value"] | Move["typed"]> =>
  "moves" in ask
    ? Object.fromEntries(ask.moves.map((move) => [move.address, move.typed ?? move.value]))
    : {};

configure({ asyncUtilTimeout: 20_000 }); // only a failing test waits so long
// what nobody lays out has no size, and long lists draw only what is in sight
Object.defineProperties(HTMLElement.prototype, {
  clientWidth: { configurable: true, get: () => 1280 },
  clientHeight: { configurable: true, get: () => 2000 },
});
/** As the client asks: a request as a whole, which is told here by its path and what it says. */
async function asFetched(asked: Request | string, how?: RequestInit): Promise<Response> {
  if (typeof asked === "string") return fetched(asked, how);
  const { pathname, search } = new URL(asked.url, "http://x");
  const isJson = asked.headers.get("Content-Type")?.includes("json");
  const body = isJson ? await asked.text() : undefined;
  return fetched(`${pathname}${search}`, { method: asked.method, ...(body ? { body } : {}) });
}
vi.stubGlobal("fetch", asFetched);

afterEach(async () => {
  cleanup();
  for (const one of [done, tried, wished, watched, fetched, fed]) one.mockClear();
  answers.clear();
  // one that outlives its page fires where there is none any more, on a busy machine without a document
  expect(await leftRunning(), "timers that outlive the page").toEqual([]);
});

/** Type into a field and settle it. */
export function type(label: string | RegExp, text: string): void {
  const field = screen.getByLabelText(label);
  fireEvent.change(field, { target: { value: text } });
  fireEvent.keyDown(field, { key: "Enter" });
}

/** Choose one of a few words by the keys: a name as it is, whatever number stands behind it. */
export function choose(label: string | RegExp, word: string | RegExp): void {
  fireEvent.keyDown(screen.getByRole("combobox", { name: label }), { key: "Enter" });
  const said = typeof word === "string" ? (name: string) => name.split(" · ")[0] === word : word;
  fireEvent.keyDown(screen.getByRole("option", { name: said }), { key: "Enter" });
}

/** Press a key by its name. */
export const press = (name: string | RegExp): boolean =>
  fireEvent.click(screen.getByRole("button", { name }));
