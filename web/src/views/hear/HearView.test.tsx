import { act, fireEvent, screen, within } from "@testing-library/react";
import { beforeEach, describe, expect, it } from "vitest";
import { received, store } from "../../data/show";
import type { Table } from "../../data/types";
import { asks, done, draw, moved, pretend } from "../../testing/pretend";

const head = (serves: string, about: string, patched = true, listens = true) => ({
  serves,
  about,
  patched,
  listens,
});
/** Three sources at the house, a wedge, ears that no output carries, and a group. */
const TABLE: Table = {
  type: "table",
  revision: 1,
  sources: ["channel/1", "channel/2", "return/1"],
  listeners: ["house", "mix/1", "mix/2", "group/1"],
  heads: [
    head("house", "main"),
    head("wedge", "Deck 3"),
    head("ears", "no output", false),
    head("group", "in between", true, false),
  ],
  level_db: [
    [-3, -10, null, 0],
    [null, -6, -20, null],
    [-12, null, null, null],
  ],
  state: [
    ["heard", "heard", "unrouted", "heard"],
    ["muted", "heard", "heard", "unrouted"],
    ["heard", "down", "unrouted", "no_source"],
  ],
  way: [
    ["after", "before", "through", "after"],
    ["after", "before", "after", "through"],
    ["through", "after", "after", "through"],
  ],
};
const VALUES = {
  "channel/1/name": "Fiddle",
  "channel/1/source": "input/local/1",
  "channel/2/name": "Kick",
  "return/1/name": "Hall",
  "return/1/source": "engine/1",
  "mix/1/name": "Wedge left",
  "mix/1/format": "mono",
  "mix/2/name": "Ears",
  "mix/2/format": "stereo",
  "group/1/name": "Band",
  "group/1/format": "stereo",
};
const cell = (source: string, listener: string) =>
  document.querySelector<HTMLElement>(`[data-cell="${source} ${listener}"]`)!;
const grid = () => screen.getByRole("grid", { name: "Who hears what" });
const press = (key: string, held: object = {}) => fireEvent.keyDown(grid(), { key, ...held });
const heard = () => asks().map((ask) => (ask.action === "hear" ? ask : null)!);
const cellsOf = (which = -1) =>
  heard()
    .at(which)!
    .cells.map((one) => `${one.source} ${one.listener}`);

describe("the table", () => {
  beforeEach(() => {
    pretend(VALUES, TABLE);
    store.setState({ selected: { source: "channel/1", listener: "house" } });
    draw("/hears");
  });

  it("reads what arrives, and a word for each silence", () => {
    expect(cell("channel/1", "mix/1").textContent).toBe("−10.0");
    expect(cell("channel/2", "house").textContent).toBe("muted");
    expect(cell("return/1", "mix/1").textContent).toBe("fader off");
    expect(cell("channel/1", "mix/2").textContent).toBe("·");
    const heads = screen.getAllByRole("columnheader").map((one) => one.textContent);
    expect(heads).toEqual(["Source", "Housemain", "Wedge leftDeck 3", "Earsno output"]);
    const rows = screen.getAllByRole("rowheader").map((one) => one.textContent);
    expect(rows).toEqual(["1FiddleDeck 1", "2Kickno source", "R1HallEngine 1"]);
    expect(grid().getAttribute("aria-rowcount")).toBe("4");
  });

  it("draws only the listeners of a kind, groups in between in a list of their own", () => {
    const listeners = () =>
      screen
        .getAllByRole("columnheader")
        .slice(1)
        .map((one) => one.getAttribute("title")!.split(":")[0]);
    fireEvent.click(screen.getByRole("radio", { name: "Wedges" }));
    expect(listeners()).toEqual(["Wedge left"]);
    fireEvent.click(screen.getByRole("radio", { name: "Groups and effects" }));
    expect(listeners()).toEqual(["Band"]);
    fireEvent.click(screen.getByRole("radio", { name: "Tracks" }));
    expect(screen.getByRole("link", { name: "Go to Outputs" })).toBeTruthy();
  });

  it("is walked by arrows, and says the cell under the cursor in full", () => {
    press("ArrowRight");
    press("ArrowDown");
    expect(grid().getAttribute("aria-activedescendant")).toBe("cell-1-1");
    expect(cell("channel/2", "mix/1").getAttribute("aria-label")).toBe("−6.0 dB, before the fader");
    expect(store.getState().selected).toEqual({ source: "channel/2", listener: "mix/1" });
    press("End");
    press("PageDown");
    expect(cell("return/1", "mix/2").getAttribute("aria-label")).toBe("not sent");
  });

  it("types a level into the cell, from the first digit on", () => {
    press("ArrowRight");
    press("-");
    const input = screen.getByLabelText("Level to arrive");
    expect(input).toHaveProperty("value", "-");
    fireEvent.change(input, { target: { value: "-9.5" } });
    fireEvent.keyDown(input, { key: "Enter" });
    expect(heard()).toEqual([
      { action: "hear", cells: [{ source: "channel/1", listener: "mix/1" }], typed: "-9.5" },
    ]);
    expect(screen.queryByLabelText("Level to arrive")).toBeNull();
  });

  it("types into a cell that is drawn, also when the cursor stood where nothing is any more", () => {
    press("End");
    fireEvent.click(screen.getByRole("radio", { name: "Wedges" }));
    press("-");
    const input = screen.getByLabelText("Level to arrive");
    fireEvent.change(input, { target: { value: "-6" } });
    fireEvent.keyDown(input, { key: "Enter" });
    expect(cellsOf()).toEqual(["channel/1 mix/1"]);
    press("ArrowDown");
    expect(grid().getAttribute("aria-activedescendant")).toBe("cell-1-0");
  });

  it("leaves a cell as it is when what was typed is given up", () => {
    press("4");
    fireEvent.keyDown(screen.getByLabelText("Level to arrive"), { key: "Escape" });
    press("Enter");
    fireEvent.keyDown(screen.getByLabelText("Level to arrive"), { key: "Enter" });
    expect(done).not.toHaveBeenCalled();
  });

  it("takes a block by Shift, a column and the sends of a row whole, and switches them off", () => {
    press("ArrowRight", { shiftKey: true });
    press("ArrowDown", { shiftKey: true });
    press("Delete");
    expect(cellsOf()).toEqual([
      "channel/1 house",
      "channel/1 mix/1",
      "channel/2 house",
      "channel/2 mix/1",
    ]);
    expect(heard().at(-1)!.typed).toBe("off");
    press("ArrowLeft");
    press(" ", { ctrlKey: true });
    press("Delete");
    expect(cellsOf()).toEqual(["channel/1 house", "channel/2 house", "return/1 house"]);
    press(" ", { shiftKey: true });
    press("Delete");
    // the house rides the fader of the source: it stays
    expect(cellsOf()).toEqual(["channel/2 mix/1", "channel/2 mix/2"]);
  });

  it("takes a row or a column by its head, and cells by a drag, but not by a finger", () => {
    const down = (at: Element, how: object = {}) =>
      fireEvent.pointerDown(at, { button: 0, pointerType: "mouse", ...how });
    down(screen.getByTitle("Kick: take the row"));
    press("Delete");
    expect(cellsOf()).toEqual(["channel/2 mix/1", "channel/2 mix/2"]);
    down(cell("channel/1", "house"));
    fireEvent.pointerOver(cell("channel/2", "mix/1"));
    fireEvent.pointerUp(grid());
    press("Delete");
    expect(cellsOf()).toHaveLength(4);
    down(cell("channel/1", "house"), { pointerType: "touch" });
    fireEvent.pointerOver(cell("channel/2", "mix/1"));
    press("Delete");
    expect(cellsOf()).toEqual(["channel/1 house"]);
  });

  it("moves the cursor when something is chosen elsewhere, and not when the table moves", () => {
    act(() => store.setState({ selected: { source: "return/1", listener: "mix/2" } }));
    expect(grid().getAttribute("aria-activedescendant")).toBe("cell-2-2");
    const changed = {
      source: "channel/1",
      listener: "house",
      level_db: -4.2,
      state: "heard",
      way: "after",
    } as const;
    act(() => received({ type: "cells", revision: 2, cells: [changed] }));
    expect(cell("channel/1", "house").textContent).toBe("−4.2");
    expect(grid().getAttribute("aria-activedescendant")).toBe("cell-2-2");
  });

  it("tells the loudest of the chosen listener, and leads to each of them", () => {
    const one = (rank: number, source: string, name: string, level_db: number) => ({
      rank,
      source,
      name,
      level_db,
    });
    const sources = [one(1, "channel/1", "Fiddle", -3), one(2, "return/1", "Hall", -12)];
    act(() => received({ type: "loudest", revision: 1, listener: "house", sources }));
    const line = screen.getByRole("group", { name: "Loudest at House" });
    expect(within(line).getAllByRole("button")).toHaveLength(2);
    fireEvent.click(within(line).getByRole("button", { name: /Hall/ }));
    expect(store.getState().selected).toEqual({ source: "return/1", listener: "house" });
    act(() => received({ type: "loudest", revision: 1, listener: "mix/1", sources }));
    expect(within(line).queryAllByRole("button")).toEqual([]); // of another listener: not yet told
  });

  it("follows a name and a spare as they move", () => {
    moved({ "channel/1/name": "Violin", "channel/1/spare": "input/local/9" });
    moved({ "channel/1/on_spare": true });
    expect(screen.getByTitle("Violin: take the row").textContent).toBe("1ViolinDeck 9 spare");
  });
});

describe("without a table", () => {
  it("says that it computes, or what to do where nobody plays", () => {
    pretend({});
    draw("/hears");
    expect(screen.getByText("One moment…")).toBeTruthy();
    const nothing = { ...TABLE, sources: [], level_db: [], state: [], way: [] };
    act(() => received(nothing));
    expect(screen.getByRole("link", { name: "Go to Lines" })).toBeTruthy();
  });
});
