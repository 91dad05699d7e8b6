import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Gesture, Link } from "./link";
import { received, store } from "./show";
import type { Ask, FromScreen, Table, ToScreen } from "./types";

class FakeSocket {
  static made: FakeSocket[] = [];
  static readonly OPEN = 1;
  readyState = 0;
  sent: FromScreen[] = [];
  onopen: (() => void) | null = null;
  onmessage: ((event: { data: string }) => void) | null = null;
  onclose: ((event: { code: number }) => void) | null = null;
  constructor() {
    FakeSocket.made.push(this);
  }
  send(text: string) {
    this.sent.push(JSON.parse(text) as FromScreen);
  }
  close() {
    this.readyState = 3;
  }
  open() {
    this.readyState = 1;
    this.onopen?.();
  }
  hear(message: ToScreen) {
    this.onmessage?.({ data: JSON.stringify(message) });
  }
  lose(code = 1006) {
    this.readyState = 3;
    this.onclose?.({ code });
  }
}

const EMPTY = store.getState();
const fader = (value: number): Ask => ({
  action: "moves",
  moves: [{ address: "channel/1/fader", value }],
});
const latest = () => FakeSocket.made.at(-1)!;
const dos = (socket: FakeSocket) => socket.sent.filter((message) => message.type === "do");

/** What the links of a test hear of the window: the next test's window is another. */
const heard: [string, EventListener][] = [];
const hear = window.addEventListener.bind(window);

beforeEach(() => {
  vi.spyOn(window, "addEventListener").mockImplementation((name, listener) => {
    heard.push([name, listener as EventListener]);
    hear(name, listener as EventListener);
  });
  vi.useFakeTimers();
  vi.stubGlobal("WebSocket", FakeSocket);
  FakeSocket.made = [];
  store.setState(EMPTY, true);
});
afterEach(() => {
  for (const [name, listener] of heard.splice(0)) window.removeEventListener(name, listener);
  vi.restoreAllMocks();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe("Link", () => {
  it("says hello with its revision and sends unconfirmed edits again under the same id", async () => {
    const link = new Link("show");
    latest().open();
    latest().hear({ type: "snapshot", revision: 4, values: {} });
    void link.do(fader(-6));
    const first = dos(latest())[0]!;
    expect(store.getState().waiting).toBe(1);
    latest().lose();
    expect(store.getState().status).toBe("lost");
    void link.do(fader(-9));
    vi.advanceTimersByTime(1000);
    latest().open();
    expect(FakeSocket.made).toHaveLength(2);
    // by whatever connection it is the same page: its hands are its own
    const { page } = FakeSocket.made[0]!.sent[0] as { page: string };
    expect(page).toMatch(/./);
    expect(latest().sent[0]).toEqual({ type: "hello", since: 4, page });
    expect(dos(latest()).map((message) => message.id)).toEqual([first.id, expect.any(String)]);
    for (const message of dos(latest()))
      latest().hear({ type: "done", id: message.id, revision: 5, says: "" });
    expect(store.getState().waiting).toBe(2); // kept, but what it changed is not here yet
    latest().hear({ type: "moved", before: 4, revision: 5, values: {} });
    expect(store.getState().waiting).toBe(0);
  });

  it("asks again when a message in between was missed", () => {
    new Link("show");
    latest().open();
    latest().hear({ type: "snapshot", revision: 4, values: {} });
    latest().hear({ type: "moved", before: 6, revision: 7, values: { "channel/1/fader": 0 } });
    expect(store.getState().revision).toBe(4);
    expect(latest().sent.at(-1)).toEqual({ type: "hello", since: 4 });
  });

  it("notices a network that died without a word", () => {
    const link = new Link("show");
    latest().open();
    void link.do(fader(-6));
    vi.advanceTimersByTime(8000);
    expect(FakeSocket.made.length).toBeGreaterThan(1);
  });

  it("notices it also while it only watches, by asking whether anybody is there", () => {
    new Link("show");
    latest().open();
    latest().hear({ type: "snapshot", revision: 4, values: {} });
    vi.advanceTimersByTime(5000);
    expect(latest().sent.at(-1)).toEqual({ type: "ping" });
    latest().hear({ type: "pong" });
    vi.advanceTimersByTime(2000);
    expect(store.getState().status).toBe("live");
    vi.advanceTimersByTime(8000);
    expect(store.getState().status).toBe("lost");
    expect(FakeSocket.made).toHaveLength(2);
  });

  it("keeps a question that nobody answered and asks it again, and counts one that an edit follows", async () => {
    const link = new Link("show");
    latest().open();
    const asked = link.try(fader(-6), { before: true });
    expect(store.getState().waiting).toBe(1);
    const letGo = new AbortController();
    let told = false;
    void link.try(fader(-9), { signal: letGo.signal }).then(() => (told = true));
    expect(store.getState().waiting).toBe(1); // only looked at: no edit waits for it
    latest().lose();
    expect(store.getState().waiting).toBe(2); // but while nobody answers it is said that it waits
    letGo.abort();
    expect(store.getState().waiting).toBe(1);
    vi.advanceTimersByTime(1000);
    latest().open();
    const again = latest().sent.filter((message) => message.type === "try");
    expect(again).toHaveLength(1);
    latest().hear({
      type: "refused",
      id: again[0]!.id,
      code: "x",
      message: "It cannot.",
      ways: [],
    });
    expect(await asked).toBe("It cannot.");
    expect(store.getState().waiting).toBe(0);
    expect(told).toBe(false);
  });

  it("gives up a question that was sent twice and ended both connections", async () => {
    const link = new Link("show");
    latest().open();
    const asked = link.try(fader(-6));
    for (let turn = 0; turn < 2; turn++) {
      latest().lose();
      vi.advanceTimersByTime(3000);
      latest().open();
    }
    expect(latest().sent.filter((message) => message.type === "try")).toHaveLength(0);
    expect(await asked).toMatch(/twice. Nothing was changed/);
    expect(store.getState().waiting).toBe(0);
  });

  it("tells a refusal and lets go of the edit", async () => {
    const link = new Link("show");
    latest().open();
    const kept = link.do(fader(99));
    const { id } = dos(latest())[0]!;
    latest().hear({ type: "refused", id, code: "out_of_range", message: "too high" });
    expect(await kept).toBe(false);
    expect(store.getState().notices.at(-1)?.text).toBe("too high");
  });

  it("keeps what was taken together with a fader where its gang would jump, for who chooses", () => {
    const link = new Link("show");
    latest().open();
    const hand = { beside: ["channel/2"], alone: false, stays: false };
    void link.do({
      action: "moves",
      moves: [{ address: "channel/1/fader", typed: "-40" }],
      by_hand: hand,
    });
    const [edit] = dos(latest());
    const ways = [{ says: "All of them, 2", moves: [], by_hand: true }];
    latest().hear({ type: "refused", id: edit!.id, code: "gang_jumps", message: "Far.", ways });
    expect(store.getState().choice).toEqual({ message: "Far.", ways, by_hand: hand });
  });

  it("says that a show is gone, and has it again once somebody brings it back", () => {
    new Link("show");
    latest().open();
    latest().lose(4404);
    expect(store.getState().status).toBe("gone");
    vi.advanceTimersByTime(4_000);
    latest().open(); // accepted, and closed again: it is still gone
    expect(store.getState().status).toBe("gone");
    latest().lose(4404);
    vi.advanceTimersByTime(4_000);
    latest().open();
    latest().hear({ type: "snapshot", revision: 3, values: {} });
    expect(store.getState().status).toBe("live");
  });
});

describe("Gesture", () => {
  it("sends one move at a time, and then only the newest", async () => {
    const link = new Link("show");
    latest().open();
    const gesture = new Gesture(link);
    for (const level of [-20, -15, -10, -5]) gesture.move(fader(level));
    expect(dos(latest())).toHaveLength(1);
    latest().hear({ type: "snapshot", revision: 1, values: {} });
    latest().hear({ type: "done", id: dos(latest())[0]!.id, revision: 1, says: "" });
    await vi.advanceTimersByTimeAsync(1);
    expect(dos(latest()).map((message) => message.ask)).toEqual([fader(-20), fader(-5)]);
    expect(new Set(dos(latest()).map((message) => message.gesture)).size).toBe(1);
  });
});

it("tells that a hand has let go once all that it moved is kept, also after a dead network", () => {
  const link = new Link("show");
  latest().open();
  latest().hear({ type: "snapshot", revision: 1, values: {} });
  const gesture = new Gesture(link);
  const held = (value: number): Ask => ({
    ...(fader(value) as Extract<Ask, { action: "moves" }>),
    by_hand: { alone: false, beside: [], stays: true },
  });
  const gone = () => latest().sent.filter((message) => message.type === "let_go");
  gesture.move(held(-6));
  gesture.move(held(-9));
  gesture.end();
  expect(gone()).toEqual([]); // the last move is not even sent
  latest().lose();
  vi.advanceTimersByTime(1000);
  latest().open();
  expect(gone()).toEqual([]);
  return answered(1, gone);
});

/** Answer what is sent, one after the other, until the hand is told to be gone. */
async function answered(revision: number, gone: () => FromScreen[]) {
  const seen = new Set<string>();
  for (let turn = 0; turn < 20 && gone().length === 0; turn++) {
    for (const message of dos(latest()))
      if (!seen.has(message.id)) {
        seen.add(message.id);
        latest().hear({ type: "moved", before: revision, revision: revision + 1, values: {} });
        revision += 1;
        latest().hear({ type: "done", id: message.id, revision, says: "" });
      }
    await vi.advanceTimersByTimeAsync(10);
  }
  expect(seen.size).toBe(2);
  expect(gone()).toHaveLength(1);
}

describe("store", () => {
  it("keeps lists of lines, mixes and channels in step with the values", () => {
    received({
      type: "snapshot",
      revision: 1,
      values: {
        "line/2/place": 1,
        "line/1/place": 2,
        "mix/3/format": "stereo",
        "channel/5/name": "Kora",
      },
    });
    expect(store.getState()).toMatchObject({ lines: [2, 1], mixes: [3], channels: [5] });
    received({
      type: "moved",
      before: 1,
      revision: 2,
      values: { "mix/3/format": "unused", "line/2/place": 0 },
    });
    expect(store.getState()).toMatchObject({ lines: [1], mixes: [], channels: [5] });
  });

  it("replaces only the cells that moved", () => {
    const table: Table = {
      type: "table",
      revision: 1,
      sources: ["channel/1", "channel/2"],
      listeners: ["house"],
      level_db: [[-6], [-7]],
      state: [["heard"], ["heard"]],
      way: [["after"], ["after"]],
      heads: [],
    };
    received(table);
    received({
      type: "cells",
      revision: 2,
      cells: [
        { source: "channel/2", listener: "house", level_db: null, state: "muted", way: "after" },
      ],
    });
    const now = store.getState().table!;
    expect(now.level_db).toEqual([[-6], [null]]);
    expect(now.state[1]).toEqual(["muted"]);
    expect(now.level_db[0]).toBe(table.level_db[0]);
  });
});

describe("What a closed page had not sent", () => {
  beforeEach(() => {
    localStorage.clear();
    store.setState({ me: { name: "ann" } as never });
  });

  const later = (ms: number) => vi.advanceTimersByTimeAsync(ms);
  /** A page on which something is typed while the server is away, and which is then closed. */
  async function closed({ crashed = false } = {}) {
    const revision = 4;
    const link = new Link("show");
    latest().open();
    latest().hear({ type: "snapshot", revision, values: {} });
    latest().lose();
    void link.do(fader(-6), { gesture: "hand" });
    void link.undo();
    if (crashed) await later(1000);
    else window.dispatchEvent(new Event("pagehide"));
    vi.clearAllTimers();
    store.setState({ ...EMPTY, me: { name: "ann" } as never, values: new Map() }, true);
  }
  function opened(revision: number) {
    new Link("show");
    const socket = latest();
    socket.open();
    socket.hear({ type: "snapshot", revision, values: {} });
    return socket;
  }

  /** The server says which of the edits that it is asked about are kept. */
  function judged(socket: ReturnType<typeof latest>, kept = (ids: string[]) => ids.slice(0, 0)) {
    const asked = socket.sent.filter((message) => message.type === "kept").at(-1);
    expect(asked?.ids).toHaveLength(1);
    socket.hear({ type: "kept", ids: kept(asked!.ids) });
  }

  it("and yet came through is nothing to speak of, whatever has moved since", async () => {
    await closed();
    const socket = opened(9);
    await later(1000);
    judged(socket, (ids) => ids);
    await later(1000);
    expect(dos(socket)).toHaveLength(0);
    expect(store.getState().unsent).toHaveLength(0);
    expect(Object.keys(localStorage)).toHaveLength(0);
  });

  it("stays kept until it is judged, for one more page that is closed before", async () => {
    await closed();
    const socket = opened(9);
    await later(1000);
    expect(Object.keys(localStorage)).toHaveLength(1);
    judged(socket);
    await later(1000);
    expect(Object.keys(localStorage)).toHaveLength(1);
    store.setState({ unsent: [] });
    await later(1000);
    expect(Object.keys(localStorage)).toHaveLength(0);
  });

  it("of a page that only fell silent waits until it is gone for sure", async () => {
    await closed({ crashed: true });
    const socket = opened(4);
    await later(1000);
    socket.hear({ type: "pong" });
    expect(dos(socket)).toHaveLength(0); // it may be hidden, and slow
    expect(Object.keys(localStorage)).toHaveLength(1);
  });

  it("is sent by the next one, as it was, where nothing has moved since", async () => {
    await closed();
    const socket = opened(4);
    await later(1000);
    expect(dos(socket)).toHaveLength(0);
    judged(socket);
    const [sent] = dos(socket);
    expect(sent).toMatchObject({ gesture: "hand", seen: 4, ask: fader(-6) });
    socket.hear({ type: "done", id: sent!.id, revision: 5, says: "" });
    socket.hear({ type: "moved", before: 4, revision: 5, values: {} });
    await later(1000);
    expect(store.getState().notices.at(-1)?.text).toContain("1 move of a page that was closed");
    expect(socket.sent).toContainEqual({ type: "let_go", gesture: "hand" });
    expect(Object.keys(localStorage)).toHaveLength(0);
    expect(socket.sent.some((message) => message.type === "undo")).toBe(false);
  });

  it("is told where somebody moved on, and made or left as a person says", async () => {
    await closed();
    const socket = opened(9);
    await later(1000);
    judged(socket);
    expect(dos(socket)).toHaveLength(0);
    expect(store.getState().unsent).toHaveLength(1);
  });

  it("is nobody else's, and goes when it is answered", async () => {
    await closed();
    store.setState({ me: { name: "ben" } as never });
    const socket = opened(4);
    await later(1000);
    expect(dos(socket)).toHaveLength(0);
    expect(Object.keys(localStorage)).toHaveLength(1);
  });
});
