import { act, fireEvent, screen, within } from "@testing-library/react";
import { beforeEach, describe, expect, it } from "vitest";
import { received } from "../../data/show";
import type { CheckEntry, MicCheck } from "../../data/types";
import {
  asks,
  choose,
  done,
  draw,
  fed,
  movesOf,
  press,
  pretend,
  type,
  watched,
} from "../../testing/pretend";

const entry = (number: number, name: string, more: Partial<CheckEntry> = {}): CheckEntry => ({
  entry: `part/${number}/microphone/1`,
  performer: `performer/${number}`,
  name,
  part_name: `Teller ${number}`,
  channel: `channel/${number}`,
  channel_name: `Head ${number}`,
  line: number,
  fitting: `fitting/${number}`,
  phase: "waiting",
  by: "",
  barred: "",
  arrived_s: 0,
  loose: 0,
  version: 2,
  ...more,
});
const check = (entries: CheckEntry[], yours: number | null, next: number | null): MicCheck => ({
  type: "mic_check",
  order: "list",
  target_dbfs: -18,
  entries,
  yours: yours === null ? null : entries[yours]!.entry,
  next: next === null ? null : entries[next]!.entry,
});
const tell = (...told: Parameters<typeof check>) => act(() => received(check(...told)));
const key = (name: string, target: Element | Window = window, how: object = {}) =>
  fireEvent.keyDown(target, { key: name, ...how });
const steps = () => asks().map((ask) => ("step" in ask ? ask.step : ask.action));

const ADA = entry(1, "Ada", { phase: "on", by: "engineer", loose: 2 });
const BO = entry(2, "Bo");
const CLEO = entry(3, "Cleo", { phase: "on", by: "assistant" });

beforeEach(() => {
  pretend({
    "channel/1/source": "input/local/1",
    "channel/2/source": "input/local/2",
    "input/local/1/gain": 30,
  });
  draw("/miccheck");
});

describe("one after another", () => {
  it("waits for who plays tonight, and leads to Cast where nobody does", () => {
    expect(screen.getByText("One moment…")).toBeTruthy();
    tell([], null, null);
    expect(screen.getByRole("link", { name: /choose tonight's cast/ })).toBeTruthy();
  });

  it("begins with the first, by one press or key, and nothing else can be pressed before", () => {
    tell([BO], null, 0);
    expect(screen.getByRole("heading", { name: "Bo is first" })).toBeTruthy();
    for (const one of ["s", "b", "d", "t"]) key(one);
    expect(done).not.toHaveBeenCalled();
    key("n");
    press("Begin: Bo");
    expect(steps()).toEqual(["next", "next"]);
  });

  it("shows who is on, with what is loose, and keeps it with the next press", () => {
    tell([ADA, BO], 0, 1);
    const card = within(screen.getByRole("region", { name: "Checking Ada" }));
    expect(card.getByText("2 values moved, kept with Next")).toBeTruthy();
    press(/^Next: Bo/);
    press("Drop 2");
    press("Skip");
    press("Back");
    for (const one of ["N", "s", "b", "d"]) key(one);
    expect(steps()).toEqual(["next", "drop", "skip", "back", "next", "skip", "back", "drop"]);
    tell([{ ...ADA, loose: 0, version: 0 }, BO], 0, 1);
    expect(card.getByText(/Nothing kept yet/)).toBeTruthy();
    expect(card.getByRole("button", { name: "Drop" })).toHaveProperty("disabled", true);
  });

  it("finishes with the last", () => {
    tell([ADA], 0, null);
    press("Finish");
    press(/^Keep, the last/);
    expect(steps()).toEqual(["finish", "next"]);
  });

  it("takes no key that is held, typed into a field, or meant for the browser", () => {
    tell([ADA, BO], 0, 1);
    key("n", window, { repeat: true });
    key("n", window, { ctrlKey: true });
    key("n", screen.getByLabelText("Gain of Ada"));
    expect(done).not.toHaveBeenCalled();
  });

  it("goes by another order when asked", () => {
    tell([BO], null, 0);
    choose("Order", "as they arrive");
    expect(watched).toHaveBeenCalledWith({ mic_check: "arrival" });
    key("n");
    expect(asks()).toEqual([{ action: "check_step", step: "next", order: "arrival", leaves: "" }]);
  });
});

describe("at the microphone", () => {
  beforeEach(() => tell([ADA, BO], 0, 1));

  it("has the preamp under the thumbs", () => {
    press("Gain up");
    press("Gain down");
    type("Gain of Ada", "36");
    press("Pad of Ada");
    expect(asks().map(movesOf)).toEqual([
      { "input/local/1/gain": "up 1" },
      { "input/local/1/gain": "down 1" },
      { "input/local/1/gain": "36" },
      { "input/local/1/pad": "on" },
    ]);
    expect(asks().every((ask) => "by_hand" in ask && ask.by_hand)).toBe(true);
  });

  it("says what arrives, against the target", () => {
    expect(screen.getByTestId("arrival").textContent).toBe("Nothing arrives. Let them speak.");
    act(() => received({ type: "levels", channels: { "1": -20 } }));
    expect(screen.getByTestId("arrival").textContent).toBe("The target is −18 dBFS.");
    expect(watched).toHaveBeenCalledWith({ levels: true, strip: "channel/1" });
  });

  it("takes the tone along to whoever is next, and ends it", () => {
    key("t");
    expect(fed.mock.calls).toEqual([[1, "tone"]]);
    tell(
      [
        { ...ADA, phase: "done" },
        { ...BO, phase: "on", by: "engineer" },
      ],
      1,
      null,
    );
    expect(fed.mock.calls.slice(1)).toEqual([
      [1, "nothing"],
      [2, "tone"],
    ]);
    press("Tone from the stand-in stage");
    expect(fed.mock.calls.at(-1)).toEqual([2, "nothing"]);
  });

  it("follows to the strip of whoever is on", () => {
    tell([ADA, { ...BO, phase: "on", by: "engineer" }], 1, null);
    expect(watched).toHaveBeenCalledWith({ levels: true, strip: "channel/2" });
  });
});

describe("the list", () => {
  const row = (one: CheckEntry) =>
    within(document.querySelector<HTMLElement>(`[data-entry="${one.entry}"]`)!);

  it("says how far each is, and counts", () => {
    const late = entry(4, "Dag", { phase: "skipped", version: 0 });
    const barred = entry(5, "Eva", { phase: "done", barred: "is one of a pair" });
    tell([ADA, BO, late, barred], 0, 1);
    expect(screen.getByText("1 done, 1 skipped, 1 to go")).toBeTruthy();
    expect(row(ADA).getByText("2 changes not kept")).toBeTruthy();
    expect(row(late).getByText(/nothing kept yet/)).toBeTruthy();
    expect(row(barred).getByText("is one of a pair")).toBeTruthy();
  });

  it("brings on who is pressed, and notes who has come", () => {
    tell([ADA, BO], 0, 1);
    fireEvent.click(row(BO).getByText("Bo"));
    expect(asks()).toEqual([{ action: "check_go_to", entry: BO.entry }]);
    fireEvent.click(row(BO).getByLabelText("Bo is here"));
    const [arrived] = Object.values(movesOf(asks()[1]!));
    expect(Number(arrived)).toBeGreaterThan(1.7e9);
    tell([ADA, { ...BO, arrived_s: 1.78e9 }], 0, 1);
    fireEvent.click(row(BO).getByLabelText("Bo is here"));
    expect(movesOf(asks()[2]!)).toEqual({ "performer/2/arrived_s": 0 });
  });

  it("takes somebody over from another only by two presses that say from whom", () => {
    tell([ADA, CLEO], 0, null);
    fireEvent.click(row(CLEO).getByText("Cleo"));
    const over = () => row(CLEO).getByRole("button", { name: /Take Cleo over from assistant/ });
    fireEvent.click(over());
    expect(done).not.toHaveBeenCalled();
    fireEvent.click(over());
    expect(asks()).toEqual([{ action: "check_take_over", entry: CLEO.entry, said: "assistant" }]);
  });

  it("lets everybody wait again only by two presses, and only where somebody was checked", () => {
    tell([BO], null, 0);
    expect(screen.queryByRole("button", { name: /Begin again/ })).toBeNull();
    tell([{ ...BO, phase: "done" }], null, null);
    expect(screen.getByRole("heading", { name: "Everybody is checked" })).toBeTruthy();
    press(/Begin again/);
    press(/Press again/);
    expect(asks()).toEqual([{ action: "check_again" }]);
  });
});
