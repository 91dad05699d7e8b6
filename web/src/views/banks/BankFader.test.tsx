import { act, fireEvent, render, screen } from "@testing-library/react";
import { beforeEach, expect, it } from "vitest";
import { store } from "../../data/show";
import type { Table } from "../../data/types";
import { asks, inPage, moved, movesOf, pretend } from "../../testing/pretend";
import { BankFader } from "./BankFader";

const VALUES = {
  "channel/19/name": "Fiddle",
  "channel/19/colour": "sea",
  "channel/19/fader": -5,
  "channel/19/send/mix/1/level": -9,
  "dca/1/name": "Band",
};

const draw = (listen: string | null, taken: string[] | null = null) =>
  render(
    inPage(
      <BankFader
        strip="channel/19"
        listen={listen}
        fixed={false}
        onFold={null}
        place={1}
        folds={false}
        taken={taken}
        onTake={() => {}}
      />,
    ),
  );

beforeEach(() => pretend(VALUES));

it("shows the strip's own fader, what it truly comes to, and by what", () => {
  store.setState({
    ruled: new Map([
      ["channel/19", { by: ["dca/1"], level_db: -8, parts: [["dca/1", -3]], muted: [] }],
    ]),
  });
  draw(null);
  expect(screen.getByRole("slider").getAttribute("aria-valuetext")).toBe("−5.0 dB");
  expect(screen.getByText("−8.0")).toBeTruthy();
  expect(screen.getByText("Band −3.0")).toBeTruthy();
});

it("says by what it is silent, also when its own key is open", () => {
  draw(null);
  expect(screen.queryByText("Band is muted")).toBeNull();
  act(() =>
    store.setState({
      ruled: new Map([
        ["channel/19", { by: ["dca/1"], level_db: -5, parts: [], muted: ["dca/1/mute"] }],
      ]),
    }),
  );
  expect(screen.getByText("Band is muted")).toBeTruthy();
  expect(screen.getByText("silent")).toBeTruthy();
});

it("takes keys: steps, off, mute", () => {
  draw(null);
  const slider = screen.getByRole("slider");
  for (const key of ["ArrowUp", "PageDown", "Home", "m"]) fireEvent.keyDown(slider, { key });
  expect(asks().map(movesOf)).toEqual([
    { "channel/19/fader": "up 1" },
    { "channel/19/fader": "down 3" },
    { "channel/19/fader": "off" },
    { "channel/19/mute": "on" },
  ]);
});

it("becomes the send while listening as a mix, with what arrives there", () => {
  const table = {
    sources: ["channel/19"],
    listeners: ["mix/1"],
    level_db: [[-12.5]],
    state: [["heard"]],
    way: [["before"]],
  };
  store.setState({ table: table as unknown as Table });
  draw("mix/1");
  const slider = screen.getByRole("slider");
  expect(slider.getAttribute("data-address")).toBe("channel/19/send/mix/1/level");
  expect(screen.getByText("−12.5")).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "on, send of Fiddle" }));
  expect(asks()).toContainEqual({
    action: "moves",
    moves: [{ address: "channel/19/send/mix/1/on", typed: "off" }],
    by_hand: { alone: false, beside: [], stays: false },
  });
});

it("takes a step for all that is taken as one more gang, and what is typed for each of them", () => {
  draw(null, ["channel/19", "channel/20"]);
  fireEvent.keyDown(screen.getByRole("slider"), { key: "ArrowUp" });
  fireEvent.click(screen.getByRole("button", { name: "mute, Fiddle" }));
  expect(asks()).toEqual([
    {
      action: "moves",
      moves: [{ address: "channel/19/fader", typed: "up 1" }],
      by_hand: { alone: false, beside: ["channel/19", "channel/20"], stays: false },
    },
    {
      action: "moves",
      moves: [
        { address: "channel/19/mute", typed: "on" },
        { address: "channel/20/mute", typed: "on" },
      ],
      by_hand: { alone: false, beside: [], stays: false },
    },
  ]);
});

it("names its gang, a pair by both numbers, and where a gang would have it past its end", () => {
  moved({
    "channel/19/fader/kept": 8.2,
    "channel/19/linked": true,
    "gang/1/name": "Strings",
    "channel/19/gang/1/on": true,
  });
  draw(null);
  expect(screen.getByText("Strings")).toBeTruthy();
  expect(screen.getByText("at 8.2")).toBeTruthy();
  expect(screen.getByText("19+")).toBeTruthy();
});
