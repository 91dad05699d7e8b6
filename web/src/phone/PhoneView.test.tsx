/** A performer's page on a mix as the desk tells it: what is pressed, and what is asked by it. */
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import type { PhoneLink, State } from "./link";
import { PhoneView } from "./PhoneView";
import type { PhoneMix } from "./types";

const strip = (name: string, level: number | null, start: number | null = -6) => ({
  strip: `channel/${name.length}`,
  name,
  colour: "sea",
  started: start !== null,
  position_db: level === null || start === null ? level : level - start,
  place_db: level === null || start === null ? level : level - start,
  end_db: 6,
  pan: 0,
  silent: "",
});
const MIX: PhoneMix = {
  mix: "mix/3",
  name: "Ears fiddle",
  who: "Aoife",
  stereo: true,
  fader_db: -5,
  ceiling_db: -1,
  start_fader_db: 0,
  started: true,
  locked: false,
  lock_reason: "",
  families: [
    { family: "me", started: true, position_db: 2, place_db: 2, strips: [strip("Fiddle", -4)] },
    {
      family: "drums",
      started: true,
      position_db: 0,
      place_db: 0.5,
      strips: [strip("Kick", -6), strip("Snare", null)],
    },
  ],
};
const link = { move: vi.fn(), turn: vi.fn(), call: vi.fn(), read: vi.fn() };
const state: State = {
  status: "live",
  told: null,
  says: "",
  waiting: 0,
  called: null,
  finger: null,
};
const draw = (mix: PhoneMix = MIX, now: State = state) =>
  render(<PhoneView mix={mix} state={now} link={link as unknown as PhoneLink} />);
const asked = () => link.move.mock.calls.map(([ask]) => ask);

beforeEach(() => vi.clearAllMocks());
afterEach(cleanup);

it("moves a family from the place where it stands past the ends, by keys as by a finger", () => {
  draw();
  const drums = screen.getByRole("slider", { name: "Drums" });
  expect(drums.getAttribute("aria-valuetext")).toBe("at the start");
  fireEvent.keyDown(drums, { key: "ArrowRight" });
  fireEvent.keyDown(drums, { key: "ArrowLeft", shiftKey: true });
  fireEvent.keyDown(drums, { key: "Home" });
  fireEvent.keyDown(drums, { key: "Delete" });
  expect(asked()).toEqual([
    { action: "to_place", mix: "mix/3", of: "drums", place: 1.5 },
    { action: "to_place", mix: "mix/3", of: "drums", place: 0.3 },
    { action: "to_start", mix: "mix/3", of: "drums" },
    { action: "to_place", mix: "mix/3", of: "drums", place: null },
  ]);
});

it("unfolds a family by one press, each strip with its place and where it stands", () => {
  draw();
  fireEvent.click(screen.getByLabelText("Unfold Drums"));
  expect(screen.getByRole("slider", { name: "Snare" }).getAttribute("aria-valuetext")).toBe("off");
  fireEvent.change(screen.getByLabelText("Place of Kick"), { target: { value: "0.5" } });
  fireEvent.click(screen.getByText("mute me"));
  expect(asked()).toEqual([
    { action: "to_pan", mix: "mix/3", of: "channel/4", pan: 0.5 },
    { action: "to_place", mix: "mix/3", of: "me", place: null },
  ]);
});

it("has the level with its ceiling, undo, start over, and a call in one's own words", () => {
  draw();
  expect(screen.getByText("−5.0, ceiling −1.0")).toBeTruthy();
  fireEvent.click(screen.getByText("All louder"));
  fireEvent.click(screen.getByText("Start over"));
  fireEvent.click(screen.getByText("Undo"));
  expect(asked()).toEqual([
    { action: "to_level", mix: "mix/3", by: 2 },
    { action: "to_start", mix: "mix/3", of: "everything" },
  ]);
  expect(link.turn).toHaveBeenCalledWith("undo");
  fireEvent.click(screen.getByText("Call the desk"));
  fireEvent.change(screen.getByLabelText("Your own words"), { target: { value: "no click" } });
  fireEvent.click(screen.getByText("Call"));
  expect(link.call).toHaveBeenCalledWith("mix/3", "no click");
});

it("says why it is locked and moves nothing then, save a call", () => {
  draw({ ...MIX, locked: true, lock_reason: "line check" });
  expect(screen.getByText("line check", { exact: false })).toBeTruthy();
  fireEvent.keyDown(screen.getByRole("slider", { name: "Drums" }), { key: "ArrowRight" });
  fireEvent.click(screen.getByText("All softer"));
  expect(asked()).toEqual([]);
  fireEvent.click(screen.getByText("Call the desk"));
  fireEvent.click(screen.getByText("too loud"));
  expect(link.call).toHaveBeenCalledOnce();
});

it("shows where another finger is", () => {
  draw(MIX, { ...state, finger: { mix: "mix/3", of: "channel/4", who: "Bo’s phone" } });
  expect(screen.getByText("Bo’s phone moves it")).toBeTruthy();
});

it("says what was refused until it is put away, and that the desk has seen a call", () => {
  draw(MIX, {
    ...state,
    says: "Not moved: ann moved Kick meanwhile.",
    called: { text: "talk to me", seen: true, by: "ann" },
  });
  expect(screen.getByRole("alert").textContent).toContain("ann moved Kick");
  fireEvent.click(screen.getByText("Seen"));
  expect(link.read).toHaveBeenCalledOnce();
  expect(screen.getByText("The desk has seen it")).toBeTruthy();
});
