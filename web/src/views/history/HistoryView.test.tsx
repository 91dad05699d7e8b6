import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, expect, it } from "vitest";
import type { History, PastGesture } from "../../data/types";
import { answers, done, draw, fetched, moved, pretend } from "../../testing/pretend";
import { laidOver } from "./useHistory";

const gesture = (last: number, first = last, author = "engineer"): PastGesture => ({
  first,
  last,
  author,
  made_at: "2026-11-20T19:30:00Z",
  kind: "edit",
  says: `move ${last}`,
  values: last - first + 1,
  was: "",
  now: "",
});
const page = (gestures: PastGesture[], more: number | null): History => ({
  revision: gestures[0]?.last ?? 0,
  gestures,
  more,
  points: [
    { id: 4, name: "Before the doors", revision: 6, author: "engineer", made_at: "2026-11-20" },
  ],
  people: ["assistant", "engineer"],
});
const told = () =>
  within(screen.getByRole("list", { name: "Gestures" }))
    .getAllByRole("listitem")
    .map((row) => /move \d+/.exec(row.textContent!)![0]);
const asked = () => fetched.mock.calls.map(([path]) => new URL(path, "http://x").searchParams);

beforeEach(() => {
  pretend({ "channel/1/name": "Fiddle", "channel/1/source": "input/local/1" });
  answers.set("/api/shows/", page([gesture(9), gesture(8, 7)], 7));
});

it("says of one value what it was and became, of several how many", async () => {
  const ride = { ...gesture(9), was: "−3 dB", now: "−5 dB" };
  answers.set("/api/shows/", page([ride, gesture(8, 7)], 7));
  draw("/history");
  await waitFor(() => expect(told()).toHaveLength(2));
  const rows = within(screen.getByRole("list", { name: "Gestures" })).getAllByRole("listitem");
  expect(rows[0]!.textContent).toContain("move 9 −3 dB → −5 dB");
  expect(rows[1]!.textContent).toContain("move 8 · 2 values");
});

it("keeps one's place in it while others work on", async () => {
  draw("/history");
  await waitFor(() => expect(told()).toEqual(["move 9", "move 8"]));
  answers.set("/api/shows/", page([gesture(6), gesture(5)], 5));
  const earlier = screen.getByRole("button", { name: "Earlier changes" });
  for (let press = 0; press < 2; press++) fireEvent.click(earlier); // a hasty hand
  await waitFor(() => expect(told()).toHaveLength(4));
  await act(() => Promise.resolve());
  expect(told()).toHaveLength(4);
  expect(asked().at(-1)!.get("before")).toBe("7");
  answers.set("/api/shows/", page([gesture(10), gesture(9)], 9));
  moved({ "channel/1/fader": -3 });
  await waitFor(() => expect(told()).toEqual([10, 9, 8, 6, 5].map((last) => `move ${last}`)));
  expect(screen.getByRole("button", { name: "Earlier changes" })).toBeTruthy();
});

it("lays a newer page over what was read: nothing twice, a gesture that went on only once", () => {
  const read = {
    wanted: {},
    newest: page([gesture(9), gesture(8)], 8),
    older: [gesture(7), gesture(6)],
    more: 6,
  };
  expect(laidOver(page([gesture(11, 9), gesture(8)], 8), read)).toEqual([gesture(7), gesture(6)]);
  expect(laidOver(page([gesture(9), gesture(8)], null), read)).toEqual([]);
  expect(laidOver(page([gesture(3)], 3), null)).toEqual([]);
});

it("asks for one strip, one person, and a time to the end of its last minute", async () => {
  draw("/history");
  await waitFor(() => expect(told()).toHaveLength(2));
  const field = (word: string) => screen.getByLabelText(`Changes ${word}`);
  fireEvent.change(field("since"), { target: { value: "2026-11-20T19:00" } });
  fireEvent.change(field("until"), { target: { value: "2026-11-20T20:15" } });
  fireEvent.change(screen.getByLabelText("Find in the history"), { target: { value: " kick " } });
  await waitFor(() => expect(asked().at(-1)!.get("words")).toBe("kick"));
  const { since, until } = Object.fromEntries(asked().at(-1)!);
  expect(Date.parse(until!) - Date.parse(since!)).toBe(75 * 60_000 + 59_999);
});

it("says that nothing is like that, or that the server is away", async () => {
  answers.set("/api/shows/", { ...page([], null), points: [] });
  draw("/history");
  await screen.findByText("Nothing was changed yet");
  fireEvent.change(screen.getByLabelText("Find in the history"), { target: { value: "x" } });
  await screen.findByText("No change like that");
  answers.clear();
  moved({ "channel/1/fader": -4 });
  expect((await screen.findByRole("alert")).textContent).toContain("cannot be reached");
});

it("keeps a point of the revision that is seen, and compares with before a gesture", async () => {
  draw("/history");
  await waitFor(() => expect(told()).toHaveLength(2));
  const keep = screen.getByRole("button", { name: "Keep the point" });
  expect(keep).toHaveProperty("disabled", true);
  fireEvent.change(screen.getByLabelText("Name of a point"), { target: { value: "Interval" } });
  await act(async () => fireEvent.click(keep));
  const [path, how] = fetched.mock.calls.at(-1)!;
  expect(path).toContain("/points");
  expect(JSON.parse(how!.body as string)).toEqual({ name: "Interval", revision: 1 });
  // keeping it has the list asked for again, whenever that comes
  const nothing = { differences: [], differing: 0, heard: [], heard_otherwise: 0, strips: [] };
  answers.set("/compared", nothing);
  fireEvent.click(screen.getByRole("button", { name: "Compare, before move 8" }));
  await screen.findByRole("region", { name: "Compared" });
  const was = fetched.mock.calls.map(([one]) => one).filter((one) => one.includes("/compared"));
  expect(was.map((one) => new URL(one, "http://x").searchParams.get("was"))).toEqual(["6"]);
  expect(done).not.toHaveBeenCalled();
});
