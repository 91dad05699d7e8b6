import { act, fireEvent, render, screen, within } from "@testing-library/react";
import { beforeEach, expect, it } from "vitest";
import { received, store } from "../../data/show";
import type { Why } from "../../data/types";
import { asks, inPage, movesOf, pretend } from "../../testing/pretend";
import { WhyPanel } from "./WhyPanel";

type Step = Why["head"][number];
const step = (title: string, more: Partial<Step> = {}): Step => ({
  kind: "stage",
  address: null,
  title,
  detail: "",
  gain_db: null,
  has_gain: false,
  open: true,
  in_path: true,
  dbu: null,
  dbfs: null,
  ...more,
});
const WHY: Why = {
  type: "why",
  revision: 1,
  source: "channel/1",
  source_name: "Fiddle",
  listener: "mix/1",
  listener_name: "Wedge left",
  level_db: -7.25,
  state: "heard",
  says: "arrives at −7.3 dB",
  head: [step("Fiddle", { dbu: -40 })],
  reasons: [],
  also: [],
  opening: null,
  ways: [
    {
      says: "",
      level_db: -7.25,
      wet: false,
      late_ms: 1.5,
      steps: [
        step("Preamp", { dbfs: -19 }),
        step("Fader", { in_path: false, has_gain: true, gain_db: -3 }),
        step("Send", { has_gain: true, gain_db: -7.25 }),
      ],
    },
  ],
};
const mute = { address: "channel/1/mute", value: false };
const tell = (why: Partial<Why>) => act(() => received({ ...WHY, ...why }));

beforeEach(() => {
  pretend({
    "channel/1/name": "Fiddle",
    "channel/1/source": "input/local/3",
    "input/local/3/gain": 42,
    "channel/1/fader": -5,
    "dca/1/name": "Strings",
    "dca/1/on": true,
  });
  store.setState({ selected: { source: "channel/1", listener: "mix/1" } });
  render(inPage(<WhyPanel />));
});

it("asks for a choice while it has no answer", () => {
  expect(screen.getByText(/Why answers for what is selected/)).toBeTruthy();
});

it("tells the level, and the one way step by step with what each adds", () => {
  tell({});
  expect(screen.getByTestId("why-level").textContent).toBe("−7.3 dB");
  const steps = screen.getAllByRole("listitem").map((row) => row.textContent);
  expect(steps).toEqual([
    "Fiddleopen−40 dBu",
    "Preampopen−19.0 dBFS",
    "Fadernot in this path—",
    "Sendopen−7.3",
  ]);
  expect(screen.getByText("1.50 ms after the source")).toBeTruthy();
  expect(screen.queryByRole("list", { name: "Ways" })).toBeNull();
});

it("folds out one of several ways at a time, and says that wet ways come on top", () => {
  const [way] = WHY.ways;
  const ways = [
    { ...way!, says: "" },
    { ...way!, says: "by way of Hall, wet", level_db: -14, wet: true, steps: [step("Hall")] },
  ];
  tell({ ways });
  const list = within(screen.getByRole("list", { name: "Ways" }));
  const keys = () => list.getAllByRole("button");
  expect(keys().map((key) => key.getAttribute("aria-expanded"))).toEqual(["true", "false"]);
  fireEvent.click(keys()[1]!);
  expect(keys().map((key) => key.getAttribute("aria-expanded"))).toEqual(["false", "true"]);
  expect(list.getByText("Hall")).toBeTruthy();
  expect(screen.getByText(/Wet ways come on top/)).toBeTruthy();
  tell({ ways, listener: "house" }); // another question: its first way again
  expect(keys()[0]!.getAttribute("aria-expanded")).toBe("true");
});

it("gives each reason with its remedy, and all of them as one press", () => {
  const reason = (code: string, says: string, remedy: Why["opening"]) => ({
    code,
    says,
    remedy,
    instead: null,
    address: null,
    ruler: null,
  });
  const open = { says: "Unmute Fiddle", moves: [mute] };
  const send = {
    says: "Switch the send on",
    moves: [{ address: "channel/1/send/mix/1/on", value: true }],
  };
  tell({
    state: "muted",
    level_db: null,
    says: "nothing arrives: 2 reasons",
    ways: [],
    reasons: [
      reason("muted", "Fiddle is muted", open),
      reason("unrouted", "The send is off", send),
    ],
    opening: { says: "Let it be heard: 2 actions", moves: [mute, ...send.moves] },
  } as Partial<Why>);
  expect(screen.getByTestId("why-level").textContent).toBe("silent");
  fireEvent.click(screen.getByRole("button", { name: "Switch the send on" }));
  fireEvent.click(screen.getByRole("button", { name: "Let it be heard: 2 actions" }));
  expect(asks().map(movesOf)).toEqual([
    { "channel/1/send/mix/1/on": true },
    { "channel/1/mute": false, "channel/1/send/mix/1/on": true },
  ]);
});

it("says who holds a key that no remedy may move, and what can be done instead", () => {
  const instead = {
    says: "Take Fiddle out of Strings",
    moves: [{ address: "channel/1/dca/1/on", value: false }],
  };
  const reason = {
    code: "muted",
    says: "Strings is muted",
    address: null,
    ruler: "dca/1",
    remedy: null,
    instead,
  };
  tell({ state: "muted", level_db: null, ways: [], reasons: [reason] } as Partial<Why>);
  act(() =>
    received({
      type: "set_by",
      keys: { "dca/1/on": { by: "assistant", at: new Date().toISOString() } },
    }),
  );
  expect(screen.getByText(/set by assistant/)).toBeTruthy();
  expect(screen.getByRole("link", { name: "Strings" }).getAttribute("href")).toBe("/dcas/1");
  fireEvent.click(screen.getByRole("button", { name: instead.says }));
  expect(asks().map(movesOf)).toEqual([{ "channel/1/dca/1/on": false }]);
});

it("has the gain, the fader and the mute of the source in hand", () => {
  tell({});
  const group = within(screen.getByRole("group", { name: "Settings of Fiddle" }));
  expect(group.getByLabelText("Fader of Fiddle")).toHaveProperty("value", "−5.0");
  fireEvent.click(group.getByLabelText("Mute: Fiddle"));
  const fader = group.getByLabelText("Fader of Fiddle");
  fireEvent.change(fader, { target: { value: "-2" } });
  fireEvent.keyDown(fader, { key: "Enter" });
  expect(asks().map(movesOf)).toEqual([{ "channel/1/mute": "on" }, { "channel/1/fader": "-2" }]);
  expect(group.getByLabelText(/^Gain of Deck 3/)).toHaveProperty("value", "42");
});
