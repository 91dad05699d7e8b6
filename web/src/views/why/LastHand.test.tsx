import { fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import type { LastHand as Told } from "../../data/types";
import { asks, inPage, movesOf, pretend } from "../../testing/pretend";
import { LastHand } from "./LastHand";

const TOLD: Told = {
  by: "ann",
  at: "2026-12-01T19:42:00Z",
  kind: "edit",
  now: "−3 dB",
  was: "−12 dB",
  was_value: -12,
  back: true,
};

beforeEach(() => pretend({ "channel/1/name": "Fiddle", "channel/1/fader": -3 }));
afterEach(() => vi.restoreAllMocks());

const answering = (told: Partial<Told>, status = 200) =>
  vi
    .spyOn(globalThis, "fetch")
    .mockImplementation(async () => new Response(JSON.stringify(told), { status }));

it("says who set it and what it was, and brings that back by one press", async () => {
  const fetched = answering(TOLD);
  render(inPage(<LastHand address="channel/1/fader" name="Fader" />));
  await screen.findByText(/^Set by ann, .*; before: −12 dB$/);
  expect((fetched.mock.calls[0]![0] as Request).url).toContain("address=channel%2F1%2Ffader");
  fireEvent.click(screen.getByRole("button", { name: "As it was: −12 dB" }));
  expect(asks().map(movesOf)).toEqual([{ "channel/1/fader": -12 }]);
});

it.each([
  [{ at: null, by: "", kind: "", was: null, back: false }, /^Nobody has moved it yet/],
  [{ was: null, back: false }, /its strip had another number until then/],
  [{ kind: "undo", back: false }, /^Brought back by ann/],
])("says what it can, and offers no way back that is none: %o", async (more, says) => {
  answering({ ...TOLD, ...more });
  render(inPage(<LastHand address="channel/1/fader" name="Fader" />));
  await screen.findByText(says);
  expect(screen.queryByRole("button")).toBeNull();
});

it("says why there is no answer", async () => {
  answering({ message: "channel/99: this desk has no such." } as object, 422);
  render(inPage(<LastHand address="channel/99/fader" name="Fader" />));
  expect((await screen.findByRole("alert")).textContent).toContain("no such");
});
