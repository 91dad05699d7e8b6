import { act, cleanup, fireEvent, render, screen } from "@testing-library/react";
import { beforeEach, expect, it } from "vitest";
import { memoryLocation } from "wouter/memory-location";
import { asks, inPage, moved, press, pretend } from "../testing/pretend";
import { FirstSteps } from "./FirstSteps";

let place = memoryLocation({ path: "/hears", record: true });
const draw = () => {
  place = memoryLocation({ path: "/hears", record: true });
  return render(inPage(<FirstSteps />, place));
};
const card = () => screen.queryByRole("region", { name: "First steps" });
const LINE = { "line/1/place": 1, "line/1/name": "Kick" };
const PLUGGED = {
  ...LINE,
  "line/1/socket": "input/local/1",
  "channel/1/source": "input/local/1",
};
const ALL = {
  ...PLUGGED,
  "mix/1/format": "mono",
  "output/local/1/source": "house/left",
  "line/1/check": "good",
};

beforeEach(() => localStorage.clear());

it("leads a new show from step to step, does each, and is gone when all is done", () => {
  pretend({});
  draw();
  const marked = () => document.querySelector("[aria-current=step]")!.textContent;
  expect(marked()).toBe("1 List");
  press("Import a list");
  expect(place.history.at(-1)).toBe("/lines?import=1");
  moved(LINE);
  expect(marked()).toBe("2 Patched");
  press("Patch all lines");
  expect(asks()).toEqual([{ action: "patch_lines", lines: [] }]);
  moved(PLUGGED);
  expect(marked()).toBe("3 Mixes");
  press("New mixes");
  expect(place.history.at(-1)).toBe("/mixes?new=1");
  moved(ALL);
  expect(card()).toBeNull();
});

it("stands on no show that has its lines, and goes when it is put away", () => {
  pretend(LINE);
  draw();
  expect(card()).toBeNull();
  act(() => moved({ "line/1/place": 0 }));
  expect(card()).toBeNull(); // it was not new when it was opened
  cleanup();
  pretend({});
  draw();
  fireEvent.click(screen.getByRole("button", { name: "Put the first steps away" }));
  expect(card()).toBeNull();
});
