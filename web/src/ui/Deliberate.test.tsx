import { act, cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { Deliberate } from "./Deliberate";

const done = vi.fn();
const key = () => screen.getByRole("button");

beforeEach(() => {
  vi.useFakeTimers();
  done.mockClear();
  render(<Deliberate says="48 V on at A 7" short="off" onDone={done} />);
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

it("takes two presses, and says so in between", () => {
  fireEvent.click(key());
  expect(done).not.toHaveBeenCalled();
  expect(key().getAttribute("aria-label")).toBe("Press again: 48 V on at A 7, again?");
  fireEvent.click(key());
  expect(done).toHaveBeenCalledTimes(1);
  expect(key().getAttribute("aria-label")).toBe("48 V on at A 7, off");
});

it.each([
  ["Escape", () => fireEvent.keyDown(key(), { key: "Escape" })],
  ["leaving it", () => fireEvent.blur(key())],
  ["waiting", () => act(() => vi.advanceTimersByTime(6000))],
])("is put back by %s", (_, putBack) => {
  fireEvent.click(key());
  putBack();
  fireEvent.click(key());
  expect(done).not.toHaveBeenCalled();
});
