import { act, cleanup, fireEvent, render, screen } from "@testing-library/react";
import { beforeEach, expect, it } from "vitest";
import { memoryLocation } from "wouter/memory-location";
import { received } from "../data/show";
import { noticed } from "../testing/messages";
import { asks, inPage, moved, press, pretend } from "../testing/pretend";
import { FirstSteps } from "./FirstSteps";

let place = memoryLocation({ path: "/hears", record: true });
const draw = () => {
  place = memoryLocation({ path: "/hears", record: true });
  return render(inPage(<FirstSteps />, place));
};
const card = () => screen.queryByRole("region", { name: "First steps" });
const KEYS = ["list", "patched", "mixes", "outputs", "check"];
const LINE = { "line/1/place": 1, "line/1/name": "Kick" };

/** Steps as the server tells them, the first so many done. */
const done = (many: number) =>
  act(() =>
    received(
      noticed({ steps: KEYS.map((key, at) => ({ key, done: at < many, says: `about ${key}` })) }),
    ),
  );

beforeEach(() => localStorage.clear());

it("leads a new show from step to step, does each, and is gone when all is done", () => {
  pretend({});
  draw();
  expect(card()).toBeNull(); // until it is known what is done
  done(0);
  const marked = () => document.querySelector("[aria-current=step]")!.textContent;
  expect(marked()).toBe("1 List");
  press("Import a list");
  expect(place.history.at(-1)).toBe("/lines?import=1");
  done(1);
  expect(marked()).toBe("2 Patched");
  press("Patch all lines");
  expect(asks()).toEqual([{ action: "patch_lines", lines: [] }]);
  done(2);
  expect(marked()).toBe("3 Mixes");
  press("New mixes");
  expect(place.history.at(-1)).toBe("/mixes?new=1");
  done(5);
  expect(card()).toBeNull();
});

it("stands on no show that has its lines, and goes when it is put away", () => {
  pretend(LINE);
  draw();
  done(1);
  expect(card()).toBeNull();
  act(() => moved({ "line/1/place": 0 }));
  expect(card()).toBeNull(); // it was not new when it was opened
  cleanup();
  pretend({});
  draw();
  done(0);
  fireEvent.click(screen.getByRole("button", { name: "Put the first steps away" }));
  expect(card()).toBeNull();
});

it("patches the house by itself, and leads nowhere where its step is taken", () => {
  pretend({});
  place = memoryLocation({ path: "/check", record: true });
  render(inPage(<FirstSteps />, place));
  done(3);
  press("Patch the house");
  expect(asks()).toEqual([{ action: "patch_bus", bus: "house", sockets: "" }]);
  done(4);
  expect(screen.queryByRole("button", { name: "Begin the line check" })).toBeNull();
  expect(card()).not.toBeNull();
});
