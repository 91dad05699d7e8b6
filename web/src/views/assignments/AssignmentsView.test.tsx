import { fireEvent, screen } from "@testing-library/react";
import { beforeEach, expect, it } from "vitest";
import { preview } from "../../testing/messages";
import { asks, draw, moved, movesOf, press, pretend, tried } from "../../testing/pretend";

const VALUES = {
  "channel/1/name": "Fiddle",
  "channel/1/source": "input/local/1",
  "channel/2/name": "Kick",
  "channel/2/source": "input/local/2",
  "channel/1/group/1/on": true,
  "group/1/name": "Band",
  "group/1/format": "stereo",
  "mix/1/name": "Ears",
  "mix/1/format": "stereo",
  "channel/1/send/mix/1/level": -6,
  "dca/1/name": "Drums",
  "channel/2/dca/1/on": true,
};
const cell = (strip: string, column: string) =>
  document.querySelector<HTMLElement>(`[data-member="${strip}/${column}"]`);
const says = (strip: string, column: string) => cell(strip, column)!.getAttribute("aria-label");
const paint = (strip: string, column: string) => {
  fireEvent.pointerDown(cell(strip, column)!, { button: 0, pointerType: "mouse" });
  fireEvent.pointerUp(cell(strip, column)!);
};
const names = () =>
  [...document.querySelectorAll("[data-row-head]")].map((one) => one.textContent!.split(" ")[0]);

beforeEach(() => {
  tried.mockImplementation(() => Promise.resolve(preview()));
  pretend(VALUES);
  draw("/assignments");
});

it("says of each strip what it goes to and is in, sends by level and switch", () => {
  expect(says("channel/1", "group/1")).toBe("Fiddle, assigned");
  expect(says("channel/1", "send/mix/1")).toBe("Fiddle, assigned");
  expect(cell("channel/2", "send/mix/1")).toBeNull(); // it stands at off: painting leaves it alone
  expect(cell("group/1", "group/1")).toBeNull();
  moved({ "channel/1/send/mix/1/on": false });
  expect(says("channel/1", "send/mix/1")).toBe("Fiddle, sent, and its switch is off");
});

it("is painted by the switches of its cells", async () => {
  paint("channel/1", "send/mix/1");
  paint("channel/1", "dca/1");
  await Promise.resolve();
  await Promise.resolve();
  expect(asks().map(movesOf)).toEqual([
    { "channel/1/send/mix/1/on": false },
    { "channel/1/dca/1/on": true },
  ]);
});

it("shows only who is in a column that is pressed, and only kinds that are wanted", () => {
  press("Drums DCA 1: only its strips");
  expect(names()).toEqual(["Kick"]);
  press(/only the 1 in Drums/);
  expect(names().length).toBeGreaterThan(3);
  press("groups shown");
  expect(cell("channel/1", "group/1")).toBeNull();
  fireEvent.change(screen.getByLabelText("Find strips"), { target: { value: "fid" } });
  expect(names()).toEqual(["Fiddle"]);
});
