import { act, cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import type { Link } from "../../data/link";
import { store } from "../../data/show";
import type { Desk, Table, Value } from "../../data/types";
import { LinkContext } from "../../data/use";
import { BankFader } from "./BankFader";

const VALUES: [string, Value][] = [
  ["channel/19/name", "Fiddle"],
  ["channel/19/colour", "sea"],
  ["channel/19/fader", -5],
  ["channel/19/mute", false],
  ["channel/19/send/mix/1/level", -9],
  ["channel/19/send/mix/1/on", true],
  ["dca/1/name", "Band"],
];
const asked = vi.fn(() => Promise.resolve(true));

const draw = (listen: string | null, taken: string[] | null = null) =>
  render(
    <LinkContext value={{ do: asked } as unknown as Link}>
      <BankFader
        strip="channel/19"
        listen={listen}
        fixed={false}
        onUnfold={null}
        taken={taken}
        onTake={() => {}}
      />
    </LinkContext>,
  );

beforeEach(() => {
  const desk = {
    fader_marks: [
      [-80, 0.02],
      [-15, 0.5],
      [6, 1],
    ],
  } as unknown as Desk;
  store.setState({ desk, values: new Map(VALUES), ruled: new Map(), table: null });
});

afterEach(() => {
  cleanup();
  asked.mockClear();
});

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
  const typed = asked.mock.calls.map((call) => {
    const [{ moves }] = call as unknown as [{ moves: { address: string; typed: string }[] }];
    return [moves[0]!.address, moves[0]!.typed];
  });
  expect(typed).toEqual([
    ["channel/19/fader", "+1"],
    ["channel/19/fader", "+-3"],
    ["channel/19/fader", "off"],
    ["channel/19/mute", "on"],
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
  expect(asked).toHaveBeenCalledWith({
    action: "moves",
    moves: [{ address: "channel/19/send/mix/1/on", typed: "off" }],
    by_hand: { alone: false, beside: [], held: false },
  });
});

it("takes a step for all that is taken as one more gang, and what is typed for each of them", () => {
  draw(null, ["channel/19", "channel/20"]);
  fireEvent.keyDown(screen.getByRole("slider"), { key: "ArrowUp" });
  fireEvent.click(screen.getByRole("button", { name: "mute, Fiddle" }));
  const asks = asked.mock.calls.map((call) => (call as unknown as [unknown])[0]);
  expect(asks).toEqual([
    {
      action: "moves",
      moves: [{ address: "channel/19/fader", typed: "+1" }],
      by_hand: { alone: false, beside: ["channel/19", "channel/20"], held: false },
    },
    {
      action: "moves",
      moves: [
        { address: "channel/19/mute", typed: "on" },
        { address: "channel/20/mute", typed: "on" },
      ],
      by_hand: { alone: false, beside: [], held: false },
    },
  ]);
});

it("names its gang, a pair by both numbers, and where a gang would have it past its end", () => {
  store.setState({
    values: new Map([...VALUES, ["channel/19/fader/kept", 8.2], ["gang/1/name", "Strings"]]),
    gangs: [1],
    members: new Map([["gang/1", new Set(["channel/19"])]]),
    pairs: new Map([["channel/20", "channel/19"]]),
  });
  draw(null);
  expect(screen.getByText("Strings")).toBeTruthy();
  expect(screen.getByText("at 8.2")).toBeTruthy();
  expect(screen.getByText("19+")).toBeTruthy();
});
