import { act, fireEvent, render, screen } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import { notify, store } from "../data/show";
import { inPage, pretend } from "../testing/pretend";
import { Frame } from "./Frame";

const told = () => screen.getByRole("status", { name: "Notices" }).textContent;

beforeEach(() => pretend({}));

it("tells the last three things that pass; each goes by itself, a refusal later, or by a press", () => {
  vi.useFakeTimers();
  try {
    const page = render(inPage(<Frame>work</Frame>));
    act(() => notify("Too high.", "refused"));
    act(() => notify("2 lines taken."));
    expect(told()).toBe("Not done.Too high.2 lines taken.");
    act(() => vi.advanceTimersByTime(4_000));
    expect(told()).toBe("Not done.Too high.");
    act(() => vi.advanceTimersByTime(6_000));
    expect(told()).toBe("");
    for (const text of ["one", "two", "three", "four"]) act(() => notify(text));
    expect(told()).toBe("twothreefour");
    fireEvent.click(screen.getByRole("button", { name: "three" }));
    expect(told()).toBe("twofour");
    page.unmount();
    expect(vi.getTimerCount()).toBe(0);
    expect(store.getState().notices).toHaveLength(2);
  } finally {
    vi.useRealTimers();
  }
});
