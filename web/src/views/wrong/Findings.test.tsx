import { act, fireEvent, screen, within } from "@testing-library/react";
import { beforeEach, expect, it } from "vitest";
import { received, store } from "../../data/show";
import type { Finding } from "../../data/types";
import { noticed } from "../../testing/messages";
import { asks, done, draw, movesOf, pretend } from "../../testing/pretend";

const finding = (about: string, more: Partial<Finding> = {}): Finding => ({
  rule: "rule",
  about,
  says: `Something about ${about}.`,
  tone: "settle",
  careful: false,
  remedy: null,
  ...more,
});
const tell = (...findings: Finding[]) => act(() => received(noticed({ findings })));

beforeEach(() => pretend({ "channel/7/source": "input/local/1" }));

it.each([
  ["line/9", "/lines?line=9"],
  ["channel/7", "/strip/channel/7"],
  ["scene/4", "/scenes/4"],
  ["dca/2", "/dcas/2"],
  ["mute_group/1", "/mutes/1"],
  ["gang/3", "/gangs/3"],
  ["mix/5", "/mixes/5"],
  ["group/2", "/mixes/group-2"],
  ["matrix/1", "/mixes/matrix-1"],
  ["house", "/mixes/house"],
  ["effects", "/effects"],
  ["promise/1", "/wrong/promises"],
  ["output/local/3", "/outputs"],
  ["input/local/3", "/patch"],
  ["fitting/12", "/cast"],
])("leads from what is said of %s to %s", (about, to) => {
  const page = draw("/findings");
  tell(finding(about));
  fireEvent.click(screen.getByRole("button", { name: "Look" }));
  expect(page.at()).toBe(to);
  if (about.startsWith("channel")) expect(store.getState().selected?.source).toBe(about);
});

it("keeps what may be meant apart, and says when there is nothing", () => {
  draw("/findings");
  expect(screen.queryByText("Nothing is wrong")).toBeNull(); // nothing is known yet
  tell();
  expect(screen.getByText("Nothing is wrong")).toBeTruthy();
  tell(finding("line/1"), finding("line/2", { tone: "note" }));
  const rows = (name: string) =>
    within(screen.getByRole("region", { name }))
      .getAllByRole("listitem")
      .map((row) => row.textContent);
  expect(rows("To mend")).toEqual(["Something about line/1.Look"]);
  expect(rows("Notes: they may be meant")).toEqual(["Something about line/2.Look"]);
});

it("mends a finding by one press, by two where care is due", () => {
  const moves = [{ address: "channel/7/source", value: "input/local/2" }];
  const remedy = { says: "Patch it", moves };
  draw("/findings");
  tell(finding("channel/7", { remedy }));
  fireEvent.click(screen.getByRole("button", { name: "Patch it" }));
  expect(asks()).toEqual([{ action: "moves", moves, says: "Patch it", remedy: true }]);
  done.mockClear();
  tell(finding("channel/7", { remedy, careful: true }));
  const key = () => screen.getByRole("button", { name: /Patch it/ });
  fireEvent.click(key());
  fireEvent.keyDown(key(), { key: "Escape" });
  fireEvent.click(key());
  expect(done).not.toHaveBeenCalled();
  fireEvent.click(key());
  expect(asks().map(movesOf)).toEqual([{ "channel/7/source": "input/local/2" }]);
});

it("tells many of one kind as one that opens, mended at once by two presses", () => {
  const some = [1, 2, 3].map((n) => finding(`line/${n}`, { rule: "phantom_missing" }));
  const moves = [{ address: "input/local/1/phantom", value: true }];
  const says = "3 lines need 48 V.";
  const remedy = { says: "48 V on at all", moves };
  const head = { rule: "phantom_missing", tone: "settle" as const, says, remedy, careful: true };
  draw("/findings");
  act(() => received(noticed({ findings: [...some, finding("dca/1")], alike: [head] })));
  expect(screen.queryByText("Something about line/2.")).toBeNull();
  expect(screen.getByText("Something about dca/1.")).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: /48 V on at all/ }));
  expect(done).not.toHaveBeenCalled();
  expect(screen.getByText("Something about line/2.")).toBeTruthy(); // what it is about to do
  fireEvent.click(screen.getByRole("button", { name: /48 V on at all/ }));
  expect(asks().map(movesOf)).toEqual([{ "input/local/1/phantom": true }]);
  fireEvent.click(screen.getByRole("button", { name: "Fold" }));
  expect(screen.queryByText("Something about line/2.")).toBeNull();
});
