import { act, fireEvent, render, screen } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import { memoryLocation } from "wouter/memory-location";
import { notify, store } from "../data/show";
import { asks, inPage, pretend } from "../testing/pretend";
import { Frame } from "./Frame";

const told = () => screen.getByRole("status", { name: "Notices" }).textContent;

beforeEach(() => pretend({}));

it("tells the last three things that pass; each goes by itself, a refusal later, or by a press", () => {
  vi.useFakeTimers();
  try {
    const page = render(inPage(<Frame>work</Frame>));
    act(() => notify("Too high.", "refused"));
    act(() => notify("2 lines taken."));
    expect(told()).toBe("Not done.Too high.✕2 lines taken.");
    act(() => vi.advanceTimersByTime(4_000));
    expect(told()).toBe("Not done.Too high.✕");
    act(() => vi.advanceTimersByTime(6_000));
    expect(told()).toBe("");
    for (const text of ["one", "two"]) act(() => notify(text));
    act(() => notify("three", "refused"));
    act(() => notify("four"));
    expect(told()).toBe("twoNot done.three✕four");
    fireEvent.click(screen.getByRole("button", { name: "Take the notice away" }));
    expect(told()).toBe("twofour");
    page.unmount();
    expect(vi.getTimerCount()).toBe(0);
    expect(store.getState().notices).toHaveLength(2);
  } finally {
    vi.useRealTimers();
  }
});

it("has one stop of the Tab key in the work list, also where the view is not in it", () => {
  const stops = (path: string) => {
    pretend({});
    const page = render(inPage(<Frame>work</Frame>, memoryLocation({ path })));
    const links = [...screen.getByRole("navigation").querySelectorAll<HTMLElement>("a")];
    page.unmount();
    return links.filter((link) => link.tabIndex >= 0).map((link) => link.getAttribute("href"));
  };
  expect(stops("/run")).toEqual(["/run"]);
  expect(stops("/mixes/3")).toEqual(["/mixes"]);
  expect(stops("/guide")).toEqual(["/lines"]);
  expect(stops("/findings")).toEqual(["/lines", "/findings"]);
});

it("asks again for all that a hand had taken together, once somebody has seen how far it jumps", () => {
  pretend({});
  render(inPage(<Frame>work</Frame>));
  const moves = [{ address: "channel/1/fader", value: -40 }];
  const by_hand = { beside: ["channel/2"], alone: false, held: false, sure: false };
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
