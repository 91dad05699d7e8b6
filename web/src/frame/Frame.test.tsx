import { act, fireEvent, render, screen } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import { memoryLocation } from "wouter/memory-location";
import { notify, store } from "../data/show";
import { asks, fetched, inPage, pretend } from "../testing/pretend";
import { Frame } from "./Frame";

const told = () =>
  [...document.querySelectorAll("[data-notice]")].map((one) => one.textContent).join(" | ");

beforeEach(() => pretend({}));

it("tells what was done until it was seen, and a refusal until it is taken away or another comes", () => {
  vi.useFakeTimers();
  try {
    const page = render(inPage(<Frame>work</Frame>));
    act(() => notify("Too high.", "refused"));
    act(() => notify("2 lines taken."));
    expect(screen.getByRole("alert").textContent).toContain("Too high.");
    expect(told()).toBe("Not done.Too high.✕ | 2 lines taken.");
    act(() => vi.advanceTimersByTime(60_000));
    expect(told()).toBe("Not done.Too high.✕");
    for (const text of ["one", "two"]) act(() => notify(text));
    act(() => notify("Too low.", "refused"));
    expect(told()).toBe("Not done.Too low.✕ | two");
    fireEvent.click(screen.getByRole("button", { name: "Take the notice away" }));
    expect(told()).toBe("two");
    act(() => vi.advanceTimersByTime(5_000));
    expect(told()).toBe("");
    expect(store.getState().notices).toEqual([]);
    page.unmount();
    expect(vi.getTimerCount()).toBe(0);
  } finally {
    vi.useRealTimers();
  }
});

it("keeps everything that was told in a list, the newest first, as far as anybody reads", () => {
  render(inPage(<Frame>work</Frame>));
  act(() => notify("Kick muted"));
  act(() => notify("Too high.", "refused"));
  fireEvent.click(screen.getByText("Too high."));
  const rows = [...screen.getByRole("list", { name: "All notices" }).children];
  expect(rows.map((row) => row.lastChild?.textContent)).toEqual([
    "Not done.Too high.",
    "Kick muted",
  ]);
  for (let n = 0; n < 150; n++) act(() => notify(`told ${n}`));
  expect(store.getState().told).toHaveLength(100);
  expect(store.getState().told.at(-1)?.text).toBe("told 149");
});

it("has one stop of the Tab key in the work list, also where the view is not in it", () => {
  const stops = (path: string) => {
    pretend({});
    const page = render(inPage(<Frame>work</Frame>, memoryLocation({ path })));
    const work = screen.getByRole("navigation", { name: "The work" });
    const links = [...work.querySelectorAll<HTMLElement>("a")];
    page.unmount();
    return links.filter((link) => link.tabIndex >= 0).map((link) => link.getAttribute("href"));
  };
  expect(stops("/guide")).toEqual(["/lines"]);
  expect(stops("/run")).toEqual(["/run"]); // a place leads where one was in it last
  expect(stops("/mixes/3")).toEqual(["/mixes/3"]);
  expect(stops("/wrong")).toEqual(["/wrong"]);
  expect(stops("/hears")).toEqual(["/hears"]);
});

it("walks the places by arrows, and goes into the tabs of one and back", () => {
  render(inPage(<Frame>work</Frame>, memoryLocation({ path: "/banks" })));
  const at = () => document.activeElement!.getAttribute("href");
  const key = (key: string) => fireEvent.keyDown(document.activeElement!, { key });
  const work = screen.getByRole("navigation", { name: "The work" });
  const [hands] = [...work.querySelectorAll<HTMLElement>("[data-place-link]")].filter(
    (link) => link.tabIndex === 0,
  );
  hands!.focus();
  expect(at()).toBe("/banks");
  key("ArrowDown");
  expect(at()).toBe("/cast");
  key("ArrowUp");
  key("ArrowRight");
  expect(at()).toBe("/banks");
  key("ArrowDown");
  key("ArrowDown");
  expect(at()).toBe("/mutes");
  key("Escape");
  expect(at()).toBe("/banks");
});

it("folds Why to its edge by W, and remembers it by view", async () => {
  const media = (query: string) => ({
    matches: query.includes(">= 1100"),
    addEventListener() {},
    removeEventListener() {},
  });
  vi.stubGlobal("matchMedia", media);
  const why = () => screen.getByRole("complementary", { name: "Why" });
  const open = (path: string) => {
    const page = render(inPage(<Frame>work</Frame>, memoryLocation({ path })));
    const isOpen = why().textContent!.includes("fold");
    return { isOpen, page };
  };
  const hears = open("/hears");
  expect(hears.isOpen).toBe(true);
  fireEvent.keyDown(window, { key: "w" });
  expect(why().textContent).not.toContain("fold");
  hears.page.unmount();
  const lines = open("/lines");
  expect(lines.isOpen).toBe(false); // it has nothing to answer there
  fireEvent.click(screen.getByTitle("Unfold Why (W)"));
  expect(why().textContent).toContain("fold");
  lines.page.unmount();
  expect([open("/hears").isOpen]).toEqual([false]);
  const told = () => fetched.mock.calls.map(([path]) => path);
  await vi.waitFor(() => expect(told()).toContain("/api/me/habits"));
});

it("asks again for all that a hand had taken together, once somebody has seen how far it jumps", () => {
  pretend({});
  render(inPage(<Frame>work</Frame>));
  const moves = [{ address: "channel/1/fader", value: -40 }];
  const by_hand = { beside: ["channel/2"], alone: false, stays: false, sure: false };
  const ways = [
    { says: "Kick alone", moves, by_hand: false },
    { says: "All of them, 2", moves, by_hand: true },
  ];
  const choose = (says: string) => {
    act(() => store.setState({ choice: { message: "Far.", ways, by_hand } }));
    fireEvent.click(screen.getByRole("button", { name: says }));
    return asks().at(-1);
  };
  expect(choose("All of them, 2")).toMatchObject({
    by_hand: { beside: ["channel/2"], sure: true },
  });
  expect(choose("Kick alone")).toMatchObject({ by_hand: null });
});

it("mutes all ears or all inputs by two keys from anywhere, and opens them by the same", () => {
  pretend({
    "mute_group/2/name": "All inputs",
    "mute_group/2/takes": "inputs",
    "mute_group/2/hard": true,
    "mute_group/2/on": true,
  });
  render(inPage(<Frame>work</Frame>));
  const two = (second: string) => {
    fireEvent.keyDown(window, { key: "q" });
    fireEvent.keyDown(screen.getByRole("button", { name: /^All ears/ }), { key: second });
    expect(screen.queryByRole("dialog")).toBeNull();
  };
  two("e");
  two("i");
  expect(asks()).toEqual([
    { action: "mute_all", what: "ears", on: true },
    { action: "mute_all", what: "inputs", on: false },
  ]);
});

it("says who is soloed and how many that silences, and that solo is in place before a key is pressed", () => {
  pretend({ "show/solo": "in_place" });
  render(inPage(<Frame>work</Frame>));
  fireEvent.click(screen.getByRole("button", { name: "Clear: end solo in place" }));
  expect(asks()).toEqual([{ action: "clear_solos" }]);
});
