import { act, fireEvent, screen } from "@testing-library/react";
import { beforeEach, expect, it } from "vitest";
import { NO_SHARES, SLOTS, withShares } from "../../data/sharing";
import { received } from "../../data/show";
import type { SharesOf, ToScreen } from "../../data/types";
import { asks, draw, pretend, type, watched } from "../../testing/pretend";
import { bandPaths } from "./bands";

const member = (n: number, gain_db: number, needs_db: number | null) => ({
  strip: `channel/${n}`,
  standing: "shares",
  level_dbfs: -20,
  gain_db,
  needs_db,
});
const told: ToScreen = {
  type: "sharing",
  groups: [
    {
      group: "sharing/1",
      members: [member(1, -0.4, null), member(2, -10.4, 10)],
      wins: "channel/1",
      says: "Host wins by 10.0 dB.",
      refused: "",
      behind: "Shared at House.",
      before: "Shared at House and Ears.",
    },
  ],
  used: [1, 4],
  places: [2, 24],
  inserts: [3, 24],
  inserts_each: 1,
};
const now = (first: number): SharesOf => ({
  group: "sharing/1",
  floor: first > 0.5 ? "channel/1" : "channel/2",
  over_db: 0,
  members: [first, 1 - first].map((share, at) => ({
    strip: `channel/${at + 1}`,
    standing: "shares",
    level_dbfs: -20,
    share,
    says: `${share} of it`,
  })),
});
const shares = (first: number, slot: number): ToScreen => ({
  type: "shares",
  groups: [now(first)],
  slot,
  talking: [],
});

beforeEach(() =>
  pretend(
    {
      "channel/1/name": "Host",
      "channel/2/name": "Guest",
      "channel/1/sharing/group": "sharing/1",
      "channel/2/sharing/group": "sharing/1",
      "sharing/1/name": "Panel",
    },
    told,
  ),
);

it("shows each share as length and number, and who has the floor", () => {
  draw("/sharing");
  act(() => received(shares(0.8, 7)));
  expect(screen.getByText("Host has the floor")).toBeTruthy();
  const meter = screen.getByRole("meter", { name: "Share of Host" });
  expect(meter.getAttribute("aria-valuenow")).toBe("80");
  expect(meter.getAttribute("aria-valuetext")).toBe("0.8 of it");
  act(() => received(shares(0.3, 8)));
  expect(screen.getByText("Guest has the floor")).toBeTruthy();
});

it("makes, fills and ends groups by what was typed", () => {
  draw("/sharing");
  fireEvent.change(screen.getByLabelText("Who shares gain"), { target: { value: "3-4" } });
  fireEvent.click(screen.getByRole("button", { name: "Share one gain" }));
  type("Who joins Panel", "9");
  fireEvent.click(screen.getByRole("button", { name: "Take Guest out of the group" }));
  fireEvent.click(screen.getByRole("button", { name: "End it, Panel" }));
  expect(asks()).toEqual([
    { action: "make_sharing", strips: "3-4", name: "" },
    { action: "join_sharing", group: "sharing/1", strips: "9" },
    { action: "leave_sharing", strips: ["channel/2"] },
    { action: "clear_sharing", group: "sharing/1" },
  ]);
});

it("tries typed levels without moving anything", () => {
  draw("/sharing");
  const field = screen.getByLabelText("Levels to try in Panel");
  fireEvent.change(field, { target: { value: "all at -20" } });
  fireEvent.submit(field.closest("form")!);
  expect(watched.mock.lastCall?.[0].tried).toEqual({ "sharing/1": "all at -20" });
  expect(asks()).toEqual([]);
});

it("keeps the last minute: gaps are empty, and more than a minute is let go", () => {
  const told = (slot: number) => ({ groups: [now(0.8)], slot, talking: [] });
  let minute = withShares(NO_SHARES, told(10));
  expect(minute.minute).toHaveLength(1);
  minute = withShares(minute, told(10)); // the same part of it
  expect(minute.minute).toHaveLength(1);
  minute = withShares(minute, told(13));
  expect(minute.minute.map((part) => Object.keys(part).length)).toEqual([2, 0, 0, 2]);
  minute = withShares(minute, told(10_000));
  expect(minute.minute).toHaveLength(SLOTS);
});

it("draws bands that fill the width of each part, whatever the sum", () => {
  const [first, second] = bandPaths(["a", "b"], [{ a: 1, b: 1 }, {}], 10);
  expect(first).toBe("M8 0.0000h1V0.5000h-1Z");
  expect(second).toBe("M8 0.5000h1V1.0000h-1Z");
});
