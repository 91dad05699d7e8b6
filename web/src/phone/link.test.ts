/** The phone's line to the desk, on a network of the test's own. */
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { PhoneLink, type State } from "./link";
import type { FromDesk, PhoneMixes } from "./types";

class Wire {
  static made: Wire[] = [];
  static readonly OPEN = 1;
  static readonly CONNECTING = 0;
  readyState = 0;
  sent: { type: string; id?: string; ask?: { place?: number } }[] = [];
  onopen: (() => void) | null = null;
  onclose: ((event: { code: number }) => void) | null = null;
  onmessage: ((event: { data: string }) => void) | null = null;

  constructor(readonly url: string) {
    Wire.made.push(this);
  }

  send(text: string): void {
    this.sent.push(JSON.parse(text));
  }

  close(): void {
    this.readyState = 3;
  }

  opens(): void {
    this.readyState = 1;
    this.onopen?.();
  }

  says(message: FromDesk): void {
    this.onmessage?.({ data: JSON.stringify(message) });
  }

  drops(code = 1006): void {
    this.readyState = 3;
    this.onclose?.({ code });
  }

  get moves() {
    return this.sent.filter((one) => one.type !== "hello" && one.type !== "ping");
  }
}

const mixes = (revision: number): PhoneMixes => ({ type: "mixes", revision, mixes: [] });
const place = (to: number) =>
  ({ action: "to_place", mix: "mix/1", of: "drums", place: to }) as const;
const last = () => Wire.made.at(-1)!;
let state: State | null = null;
let open: PhoneLink[] = [];

function phone(): PhoneLink {
  const link = new PhoneLink("a-link", (now) => {
    state = now;
  });
  open.push(link);
  return link;
}

function live(link: PhoneLink, revision = 7): PhoneLink {
  last().opens();
  last().says(mixes(revision));
  return link;
}

beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal("WebSocket", Wire);
  Wire.made = [];
  localStorage.clear();
});

afterEach(() => {
  for (const link of open) link.stop();
  open = [];
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

it("says hello, and moves with the revision that the page saw", () => {
  const link = live(phone());
  expect(last().url).toContain("/mine/a-link/live");
  link.move(place(-3), "g");
  expect(last().moves).toMatchObject([{ type: "do", gesture: "g", seen: 7, ask: place(-3) }]);
  expect(state).toMatchObject({ status: "live", waiting: 1 });
  last().says({ type: "done", id: last().moves[0]!.id!, revision: 8, says: "" });
  expect(state?.waiting).toBe(0);
});

it("keeps moves while the network is away, a hand's last place for all, and sends them in order", () => {
  const link = live(phone());
  link.move(place(-1), "first");
  last().drops();
  expect(state?.status).toBe("away");
  link.move(place(-2), "second");
  link.move(place(-4), "second");
  link.turn("undo");
  expect(state?.waiting).toBe(3);
  vi.advanceTimersByTime(1_000);
  last().opens();
  link.move(place(-9), "third");
  expect(last().moves).toEqual([]); // behind all that waits
  last().says(mixes(7));
  expect(last().moves.map((one) => one.ask?.place ?? one.type)).toEqual([-1, -4, "undo", -9]);
});

it("finds what a page that was closed had no answer to, with the ids that it had", () => {
  const link = live(phone());
  link.move(place(-5), "g");
  const { id } = last().moves[0]!;
  link.stop();
  phone();
  last().opens();
  last().says(mixes(9));
  expect(last().moves).toMatchObject([{ id, seen: 7 }]);
  last().says({ type: "done", id: id!, revision: 10, says: "" });
  expect(localStorage.length).toBe(0);
});

it("keeps no move back for when a lock ends, but goes on calling", () => {
  const link = live(phone());
  link.move(place(-5), "g");
  link.move(place(-6), "h");
  link.call("mix/1", "too loud");
  const refused = { type: "refused", code: "locked", message: "Locked by the desk." } as const;
  last().says({ ...refused, id: last().moves[0]!.id! });
  expect(state).toMatchObject({ waiting: 1, says: "Locked by the desk." });
  last().says({
    type: "called",
    id: last().moves[2]!.id!,
    text: "too loud",
    seen: true,
    by: "ann",
  });
  expect(state).toMatchObject({ waiting: 0, called: { seen: true, by: "ann" } });
});

it("comes back by itself from a line that died without a word, and ends with its link", () => {
  live(phone());
  const first = last();
  vi.advanceTimersByTime(12_000);
  expect(first.sent.some((one) => one.type === "ping")).toBe(true);
  expect(state?.status).toBe("away");
  vi.advanceTimersByTime(2_000);
  expect(Wire.made.length).toBeGreaterThan(1);
  first.says(mixes(99)); // of a line that was given up
  expect(state?.told?.revision).toBe(7);
  last().opens();
  last().drops(4403);
  vi.advanceTimersByTime(60_000);
  expect(state).toMatchObject({ status: "ended", told: null });
});
