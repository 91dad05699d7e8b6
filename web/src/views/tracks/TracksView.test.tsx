import { act, fireEvent, screen } from "@testing-library/react";
import { beforeEach, expect, it } from "vitest";
import { received, store } from "../../data/show";
import type { PlanFound, ToScreen, TrackRow, Tracks, WishRow } from "../../data/types";
import { asks, draw, pretend, type, watched } from "../../testing/pretend";

const wish = (n: number, more: Partial<WishRow> = {}): WishRow => ({
  wish: `wish/${n}`,
  name: ["Kick", "Hall"][n - 1]!,
  source: n === 1 ? "channel/1" : "return/1",
  tap: n === 1 ? "input" : "after_fader",
  stereo: n === 2,
  track: 0,
  rank: 0,
  given: 0,
  two_sides: n === 2,
  raw: n === 1,
  stands: false,
  refused: "",
  ...more,
});
const track = (n: number, more: Partial<TrackRow> = {}): TrackRow => ({
  track: n,
  socket: `output/recorder/${n}`,
  name: "",
  carries: "",
  taken: "",
  wish: "",
  mix: "",
  held: false,
  plays_into: [],
  dbfs: null,
  ...more,
});
const told = (more: Partial<Tracks> = {}): ToScreen => ({
  type: "tracks",
  recorder: "Tape",
  refused: "",
  block: 1,
  boxes: [{ first: "output/recorder/1", name: "Tape" }],
  wishes: [wish(1), wish(2)],
  tracks: [track(1, { name: "Snare", carries: "Snare", taken: "processed", dbfs: -18 }), track(2)],
  spare: 3,
  basis: "one",
  held_tracks: "",
  held_mixes: "",
  back: { able: 0, laid: 0, playing: 0, taken: [], families: [], told: [] },
  ...more,
});
const plan = (more: Partial<PlanFound> = {}): ToScreen => ({
  type: "plan_found",
  id: store.getState().planning!.id,
  found: true,
  refused: "",
  basis: "one",
  rows: [
    { wish: "wish/1", name: "Kick", track: 1, stereo: false, mix: "", why: "" },
    { wish: "wish/2", name: "Hall", track: 0, stereo: true, mix: "", why: "no room" },
  ],
  tracks: [
    { track: 1, name: "Kick", taken: "raw", changed: true },
    { track: 2, name: "", taken: "", changed: false },
  ],
  mixes: 0,
  changes: 1,
  told: [],
  counts: [],
  clashes: [],
  would_do: [],
  fewest: null,
  ...more,
});

beforeEach(() => pretend({}));

const drawn = async (message = told()) => {
  await draw("/tracks");
  act(() => received(message));
};

it("asks to be told, and takes wishes as they are typed", async () => {
  await drawn();
  expect(watched).toHaveBeenCalledWith({ tracks: true });
  type("What is to be recorded", "1-8 raw");
  fireEvent.click(screen.getByText("Record it"));
  expect(asks()).toContainEqual({ action: "add_wishes", text: "1-8 raw" });
  expect(screen.getAllByLabelText("on no track")).toHaveLength(2);
});

it("shows what each track would carry, and takes just that plan", async () => {
  await drawn();
  fireEvent.click(screen.getByText("Find the plan"));
  act(() => received(plan()));
  expect(screen.getByTestId("plan").textContent).toContain("1 of 2 on tracks");
  expect(screen.getByText(/No room: Hall/)).toBeTruthy();
  const row = document.querySelector("[data-track='1']")!;
  expect(row.textContent).toContain("Kick was Snare");
  expect(row.textContent).toContain("raw");
  fireEvent.click(screen.getByText("Take the plan"));
  expect(asks()).toContainEqual({
    action: "take_plan",
    given: [
      { wish: "wish/1", track: 1, mix: "" },
      { wish: "wish/2", track: 0, mix: "" },
    ],
  });
});

it("says that a plan is of before, once something else is wished", async () => {
  await drawn();
  fireEvent.click(screen.getByText("Find the plan"));
  act(() => received(plan()));
  act(() => received(told({ basis: "two" })));
  expect(screen.queryByText("Take the plan")).toBeNull();
  expect(screen.getByText(/find the plan again/)).toBeTruthy();
});

it("hears only the newest search, and how far it is", async () => {
  await drawn();
  fireEvent.click(screen.getByText("Find the plan"));
  act(() => received({ ...plan(), id: "another" } as ToScreen));
  expect(screen.queryByTestId("plan")).toBeNull();
  const id = store.getState().planning!.id;
  act(() => received({ type: "planning", id, what: "would do", at: 3, of: 9 }));
  expect(screen.getByText("Trying what would do")).toBeTruthy();
});

it("does what would do by a press, and plans anew", async () => {
  await drawn();
  fireEvent.click(screen.getByText("Find the plan"));
  const moves = [{ address: "wish/2/stereo", value: false }];
  act(() =>
    received(
      plan({
        found: false,
        rows: [],
        counts: ["3 of 2 tracks"],
        clashes: [{ wishes: ["wish/1", "wish/2"], names: ["Kick raw", "Hall as heard"], why: "" }],
        would_do: [
          { says: "Hall: in mono", moves },
          { says: "One track more than Tape has", moves: [] },
        ],
      }),
    ),
  );
  expect(screen.getByText(/3 of 2 tracks/)).toBeTruthy();
  expect(screen.getByText("One track more than Tape has").closest("button")).toBeNull();
  await act(async () => fireEvent.click(screen.getByText("Hall: in mono")));
  expect(asks()).toContainEqual({ action: "moves", moves, says: "Hall: in mono" });
  expect(store.getState().planning).not.toBeNull();
});

it("plays back by one key, and says what to know before", async () => {
  await draw("/tracks/back");
  const back = {
    able: 3,
    laid: 2,
    playing: 0,
    taken: [{ channel: "channel/1", says: "Kick: Deck 8" }],
    families: ["drums", "voices"],
    told: [{ tone: "loop", says: "Tracks 1-2 would record themselves." }],
  };
  act(() => received(told({ back })));
  expect(screen.getByText("Tracks 1-2 would record themselves.")).toBeTruthy();
  fireEvent.click(screen.getByText("Play the tracks"));
  fireEvent.click(screen.getByText("drums"));
  fireEvent.click(screen.getByText("Let the track take over"));
  expect(asks()).toEqual([
    { action: "switch_playback", on: true, family: "" },
    { action: "switch_playback", on: true, family: "drums" },
    { action: "lay_playback", over: ["channel/1"] },
  ]);
  act(() => received(told({ back: { ...back, playing: 2 } })));
  fireEvent.click(screen.getByText("Back to the stage"));
  expect(asks().at(-1)).toEqual({ action: "switch_playback", on: false, family: "" });
});
