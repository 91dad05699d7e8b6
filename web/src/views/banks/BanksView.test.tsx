import { act, fireEvent, screen, within } from "@testing-library/react";
import { beforeEach, expect, it } from "vitest";
import { received } from "../../data/show";
import { asks, choose, draw, moved, movesOf, press, pretend, watched } from "../../testing/pretend";

const VALUES = {
  "channel/1/name": "Fiddle",
  "channel/1/source": "input/local/1",
  "channel/2/name": "Kick",
  "channel/2/source": "input/local/2",
  "channel/2/dca/1/on": true,
  "dca/1/name": "Drums",
  "mix/1/name": "Ears",
  "mix/1/format": "stereo",
  "bank/1/name": "First",
  "bank/1/1/1": "channel/1",
  "bank/1/1/2": "dca/1",
  "bank/2/name": "Second",
  "bank/2/1/1": "channel/2",
};
const faders = () =>
  screen.getAllByRole("slider").map((one) => one.getAttribute("data-address")!.split("/fader")[0]);
const called = () =>
  screen
    .getAllByRole("button", { pressed: true })
    .map((one) => one.textContent)
    .filter((text) => /^\d/.test(text!));
const key = (name: string) => fireEvent.keyDown(window, { key: name });
const unfold = (strips: Record<string, string[]>) =>
  act(() => received({ type: "unfolded", revision: 1, strips } as never));

beforeEach(() => {
  sessionStorage.clear();
  pretend(VALUES);
});

it("calls banks by their keys and numbers", () => {
  draw("/banks");
  expect(faders()).toEqual(["channel/1", "dca/1"]);
  key("2");
  expect(faders()).toEqual(["channel/2"]);
  press(/First/);
  expect(called()).toEqual(["1First"]);
});

it("calls a bank that was looked for, as often as it is looked for", () => {
  const page = draw("/banks?bank=2");
  expect(called()).toEqual(["2Second"]);
  expect(page.at()).toBe("/banks");
  key("1");
  expect(called()).toEqual(["1First"]);
  act(() => page.go("/banks?bank=2"));
  expect(called()).toEqual(["2Second"]);
});

it("waits for a bank that comes after its address", () => {
  pretend({});
  draw("/banks?bank=2");
  expect(screen.getByText("No bank yet")).toBeTruthy();
  moved(VALUES);
  expect(called()).toEqual(["2Second"]);
});

it("unfolds a DCA where it lies, and folds it up by Escape", () => {
  draw("/banks");
  fireEvent.click(screen.getByRole("button", { name: /unfold.*Drums|Drums.*unfold/i }));
  expect(watched).toHaveBeenCalledWith({ levels: true, unfold: ["dca/1"] });
  unfold({ "dca/1": ["channel/2"] });
  // it keeps its fader, and what folds it up again lies where it was unfolded
  expect(faders()).toEqual(["channel/2", "dca/1"]);
  key("Escape");
  expect(faders()).toEqual(["channel/1", "dca/1"]);
  press("unfold Drums");
  expect(faders()).toEqual(["channel/2", "dca/1"]);
  press("fold Drums");
  expect(faders()).toEqual(["channel/1", "dca/1"]);
});

it("leaves under a hand what it is on, whatever is unfolded or called meanwhile", () => {
  draw("/banks");
  const fader = screen.getByRole("slider", { name: "Fader of Fiddle" });
  fader.setPointerCapture = () => undefined;
  fader.hasPointerCapture = () => false;
  fireEvent.pointerDown(fader, { button: 0, clientY: 100 });
  press("unfold Drums");
  unfold({ "dca/1": ["channel/2"] });
  expect(faders()).toEqual(["channel/1", "dca/1"]);
  fireEvent.pointerMove(fader, { clientY: 60 });
  key("2");
  expect(faders()).toEqual(["channel/1"]);
  expect(asks().flatMap((ask) => Object.keys(movesOf(ask)))).toEqual(["channel/1/fader"]);
  fireEvent.pointerUp(fader);
  expect(faders()).toEqual(["channel/2"]);
});

it("shows a bank of more strips than faders page after page", () => {
  const strips = Array.from({ length: 20 }, (_, index) => index + 1);
  pretend({
    ...Object.fromEntries(strips.map((n) => [`bank/1/1/${n}`, `channel/${n}`])),
    "bay/1/fixed/1": "house",
    "bank/1/name": "All",
  });
  draw("/banks");
  const faderCount = faders().length;
  expect(faders()[0]).toBe("house");
  expect(faders()[1]).toBe("channel/2");
  press(/^Page 1 of/);
  expect(faders().slice(0, 2)).toEqual(["house", `channel/${faderCount + 1}`]);
  press("Edit banks");
  expect(screen.getByLabelText("Strips of the bank")).toHaveProperty("value", "1-20");
});

it("puts the sends of a listener under the faders, where there can be some", () => {
  draw("/banks");
  choose("Faders as", "sends into Ears");
  const sends = screen.getAllByRole("slider").map((one) => one.getAttribute("data-address"));
  expect(sends).toEqual(["channel/1/send/mix/1/level"]);
});

it("lets two places change what they hold while banks are edited", () => {
  draw("/banks");
  press("Edit banks");
  const handles = screen.getAllByTitle("Drag it to another place");
  fireEvent.dragStart(handles[0]!);
  fireEvent.drop(handles[1]!.parentElement!);
  expect(asks().map(movesOf)).toEqual([{ "bank/1/1/2": "channel/1", "bank/1/1/1": "dca/1" }]);
});

it("says what to do while there is none", () => {
  pretend({});
  draw("/banks");
  press("Make banks");
  expect(within(document.body).getByRole("button", { name: "Done" })).toBeTruthy();
});
