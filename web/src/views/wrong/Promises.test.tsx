import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, describe, expect, it } from "vitest";
import { received } from "../../data/show";
import type { Breach, Judged } from "../../data/types";
import { noticed } from "../../testing/messages";
import { asks, choose, done, draw, movesOf, press, pretend, type } from "../../testing/pretend";

const VALUES = {
  "group/1/name": "Band",
  "group/1/format": "stereo",
  "promise/1/name": "No click",
  "promise/1/kind": "never",
  "channel/3/promise/1/on": true,
  "channel/4/promise/1/on": true,
  "house/promise/1/on": true,
};
const breach = (more: Partial<Breach> = {}): Breach => ({
  source: "channel/3",
  listener: "house",
  says: "Click reaches House straight.",
  open: true,
  feeds: ["channel/3/house/on"],
  remedies: [
    { says: "Take Click off House", moves: [{ address: "channel/3/house/on", value: false }] },
  ],
  ...more,
});
const judged = (more: Partial<Judged> = {}): Judged => ({
  promise: "promise/1",
  says: "3, 4 never reach House",
  breaking: 0,
  passing: 0,
  breaches: [],
  vain: "",
  ...more,
});
const tell = (...promises: Judged[]) => act(() => received(noticed({ promises })));
const card = () => within(document.querySelector<HTMLElement>('[data-promise="promise/1"]')!);

describe("a promise", () => {
  beforeEach(() => {
    pretend(VALUES);
    draw("/promises");
  });

  it("is kept, with what arrives so; or holds nothing yet", () => {
    tell(judged({ passing: 2 }));
    expect(card().getByText("kept, 2 arrive so")).toBeTruthy();
    expect(screen.getByRole("tab", { name: /Promises.*kept/ })).toBeTruthy();
    tell(judged({ vain: "None of its channels has a source." }));
    expect(card().getByText("holds nothing yet")).toBeTruthy();
  });

  it("is broken by a way, with whose hand, and what closes it; or all at once", () => {
    tell(
      judged({ breaking: 8, breaches: [breach(), breach({ source: "channel/4", open: false })] }),
    );
    act(() =>
      received({
        type: "set_by",
        keys: { "channel/3/house/on": { by: "assistant", at: new Date().toISOString() } },
      }),
    );
    expect(screen.getByText("1 broken")).toBeTruthy();
    expect(card().getAllByText(/By assistant/)).toHaveLength(2);
    expect(card().getByText("and 6 more")).toBeTruthy();
    fireEvent.click(card().getAllByRole("button", { name: "Take Click off House" })[0]!);
    press("Close all 8");
    expect(movesOf(asks()[0]!)).toEqual({ "channel/3/house/on": false });
    expect(asks()[1]).toEqual({ action: "mend_promise", promise: "promise/1" });
  });

  it("has terms that are typed anew, each without losing the other", () => {
    tell(judged());
    expect(card().getByLabelText("What No click is about")).toHaveProperty("value", "3-4");
    type("What No click is about", "3");
    type("Where No click looks", "house, matrix 1");
    choose("Never or through, No click", "only through Band reach");
    press("effects count, No click");
    press("Remove: 3, 4 never reach House");
    const members = { action: "members", ruler: "promise/1", exactly: true, on: true };
    expect(asks().slice(0, 2)).toEqual([
      { ...members, strips: "3, house" },
      { ...members, strips: "3-4, house, matrix 1" },
    ]);
    expect(asks().slice(2, 4).map(movesOf)).toEqual([
      { "promise/1/kind": "only_through", "promise/1/through": "group/1" },
      { "promise/1/wet": false }, // they do unless told otherwise
    ]);
    expect(asks()[4]).toEqual({ action: "clear_ruler", ruler: "promise/1" });
  });
});

it("is made of one sentence, which stays where it is refused", async () => {
  pretend({ "group/1/format": "stereo", "group/1/name": "Band" });
  draw("/promises");
  expect(screen.getByText("Nothing promised yet")).toBeTruthy();
  const fill = (label: string, value: string) =>
    fireEvent.change(screen.getByLabelText(label), { target: { value } });
  fill("What is promised of", "31, 48");
  fill("Where it must not arrive otherwise", "house");
  choose("Never, or through which group", "only through Band reach");
  done.mockImplementationOnce(() => Promise.resolve(false));
  press("Promise");
  await act(() => Promise.resolve());
  expect(screen.getByLabelText("What is promised of")).toHaveProperty("value", "31, 48");
  press("Promise");
  await waitFor(() =>
    expect(screen.getByLabelText("What is promised of")).toHaveProperty("value", ""),
  );
  expect(asks().at(-1)).toEqual({
    action: "make_promise",
    sources: "31, 48",
    listeners: "house",
    through: "group/1",
    name: "",
  });
});
