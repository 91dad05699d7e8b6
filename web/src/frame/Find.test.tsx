import { act, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { memoryLocation } from "wouter/memory-location";
import { received, store } from "../data/show";
import { sceneValues } from "../testing/messages";
import { asks, inPage, movesOf, pretend } from "../testing/pretend";
import { Find } from "./Find";

const VALUES = {
  ...sceneValues("1 Overture", "2.5 Market"),
  "channel/7/name": "Fiddle",
  "channel/7/source": "input/local/3",
  "channel/12/name": "Hurdy-gurdy",
  "channel/12/source": "input/local/12",
  "return/1/name": "Hall",
  "return/1/source": "engine/1",
  "mix/2/name": "Ears fiddle",
  "mix/2/format": "stereo",
  "dca/3/name": "Strings",
  "mute_group/1/name": "Tellers",
  "gang/2/name": "Toms",
  "bank/4/name": "Second act",
  "line/9/place": 1,
  "line/9/name": "Clarsach",
  "line/9/performer": "Ada",
  "part/1/place": 1,
  "part/1/name": "Lighthouse keeper",
  "promise/1/kind": "never",
  "promise/1/name": "No click outside",
};
const closed = vi.fn();
let place = memoryLocation({ path: "/hears", record: true });

const open = () => {
  place = memoryLocation({ path: "/hears", record: true });
  render(inPage(<Find open onOpenChange={closed} />, place));
};
const field = () => screen.getByLabelText("Find by name or number");
const find = (words: string) => fireEvent.change(field(), { target: { value: words } });
const hits = () =>
  [...screen.getByRole("list", { name: "Found" }).children].map((one) => one.textContent);
const enter = () => fireEvent.keyDown(field(), { key: "Enter" });

beforeEach(() => {
  closed.mockClear();
  pretend(VALUES);
});

describe("what is found", () => {
  it.each([
    ["fiddle", "Fiddlechannel 7 Local 3", "/hears"],
    ["ears fid", "Ears fiddlemix 2", "/mixes/2"],
    ["local 12", "Hurdy-gurdychannel 12 Local 12", "/hears"],
    ["hall", "Hallreturn 1", "/mixes/return-1"],
    ["strings", "StringsDCA 3", "/dcas/3"],
    ["tellers", "Tellersmute group 1", "/mutes/1"],
    ["toms", "Tomsgang 2", "/gangs/2"],
    ["second act", "Second actbank 4", "/banks?bank=4"],
    ["2.5", "2.5 Marketscene", "/scenes/2"],
    ["ada", "Clarsachline Ada", "/lines?line=9"],
    ["keeper", "Lighthouse keeperpart", "/cast"],
    ["click outside", "No click outsidepromise 1", "/wrong/promises"],
    ["mic check", "Mic checkview", "/miccheck"],
  ])("by %s: %s", (words, hit, at) => {
    open();
    find(words);
    expect(hits()[0]).toBe(hit);
    enter();
    expect(place.history.at(-1)).toBe(at);
    expect(closed).toHaveBeenCalledWith(false);
  });

  it("is what was meant where a hand slipped, and nothing where nothing is called that", () => {
    open();
    find("fidlde");
    expect(hits()).toContain("Fiddlechannel 7 Local 3");
    find("theremin");
    expect(hits()).toEqual(["Nothing is called that."]);
    enter();
    expect(closed).not.toHaveBeenCalled();
  });

  it("is walked by arrows, and chosen by a click", () => {
    open();
    find("fiddle");
    fireEvent.keyDown(field(), { key: "ArrowDown" });
    enter();
    expect(place.history.at(-1)).toBe("/mixes/2");
    expect(store.getState().selected?.listener).toBe("mix/2");
  });

  it("follows names given meanwhile", () => {
    open();
    find("theremin");
    act(() =>
      received({ type: "moved", before: 1, revision: 2, values: { "channel/7/name": "Theremin" } }),
    );
    expect(hits()[0]).toBe("Thereminchannel 7 Local 3");
  });
});

it("has the gain of a found channel in hand when it closes", async () => {
  const page = (shown: boolean) =>
    inPage(
      <>
        <div data-source-fields>
          <input aria-label="Gain" />
        </div>
        <Find open={shown} onOpenChange={closed} />
      </>,
      place,
    );
  const drawn = render(page(true));
  find("fiddle");
  enter();
  drawn.rerender(page(false));
  await waitFor(() => expect(document.activeElement).toBe(screen.getByLabelText("Gain")));
  expect(store.getState().selected?.source).toBe("channel/7");
});

it("keeps an Enter that came before the show, and goes when it is there", () => {
  store.setState(
    {
      ...store.getInitialState(),
      desk: store.getState().desk,
      catalogue: store.getState().catalogue,
    },
    true,
  );
  open();
  find("fiddle");
  enter();
  expect(closed).not.toHaveBeenCalled();
  act(() => received({ type: "snapshot", revision: 1, values: VALUES }));
  expect(closed).toHaveBeenCalledWith(false);
  expect(store.getState().selected?.source).toBe("channel/7");
});

describe("commands", () => {
  const does = (words: string) => {
    open();
    find(words);
    enter();
    return asks().at(-1)!;
  };

  it("press keys by name, as they stand", () => {
    expect(movesOf(does("mute strings"))).toEqual({ "dca/3/mute": true });
  });

  it("open what is pressed", () => {
    pretend({ ...VALUES, "mute_group/1/on": true });
    expect(movesOf(does("open tellers"))).toEqual({ "mute_group/1/on": false });
  });

  it("choose how solos work, and clear them only where some are pressed", () => {
    expect(movesOf(does("solo in place"))).toEqual({ "show/solo": "in_place" });
    find("clear solos");
    expect(hits()).toEqual(["Nothing is called that."]);
  });

  it("clear solos", () => {
    pretend({ ...VALUES, "channel/7/solo": true });
    expect(does("clear solos")).toEqual({ action: "clear_solos" });
  });

  it("lift who is behind, and take back who is in the lead", () => {
    const lift = {
      "lift/1/backing": "group/1",
      "lift/1/lead": "group/2",
      "channel/7/group/1/on": true,
      "channel/12/group/1/on": true,
      "channel/12/group/2/on": true,
    };
    pretend({ ...VALUES, ...lift });
    const ask = { action: "lift", lift: "lift/1" };
    expect(does("lift fiddle")).toEqual({ ...ask, strips: ["channel/7"], on: true });
    find("bring back");
    enter();
    expect(asks().at(-1)).toEqual({ ...ask, strips: ["channel/12"], on: false });
  });
});
