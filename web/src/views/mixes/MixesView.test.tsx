import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, describe, expect, it } from "vitest";
import { received, store } from "../../data/show";
import { preview } from "../../testing/messages";
import {
  asks,
  choose,
  done,
  draw,
  moved,
  movesOf,
  press,
  pretend,
  tried,
  type,
} from "../../testing/pretend";

const VALUES = {
  "channel/1/name": "Fiddle",
  "channel/1/source": "input/local/1",
  "channel/1/send/mix/1/level": -9,
  "channel/1/send/mix/1/pan": -0.3,
  "channel/2/name": "Kick",
  "channel/2/source": "input/local/2",
  "channel/2/send/mix/1/on": false,
  "return/1/name": "Hall",
  "return/1/source": "engine/1",
  "mix/1/name": "Ears fiddle",
  "mix/1/format": "stereo",
  "mix/2/name": "Wedge",
  "mix/2/format": "mono",
  "mix/2/serves": "wedge",
  "group/1/name": "Band",
  "group/1/format": "stereo",
  "output/local/5/source": "mix/1/left",
  "output/local/6/source": "mix/1/right",
};
const rows = () => [...document.querySelectorAll<HTMLElement>("[role=list] [data-row]")];
const row = (strip: string) => within(rows().find((one) => one.dataset.row === strip)!);
const moves = () => asks().map(movesOf);

describe("sends into a mix", () => {
  beforeEach(() => pretend(VALUES));

  it("have a fader, a level, a pan and a tap for each strip that may be sent", () => {
    draw("/mixes/1");
    expect(rows().map((one) => one.dataset.row)).toEqual([
      "channel/1",
      "channel/2",
      "return/1",
      "group/1",
    ]);
    const fiddle = row("channel/1");
    expect(fiddle.getByRole("slider").getAttribute("aria-valuetext")).toBe("−9.0 dB");
    expect(fiddle.getByLabelText("Level of Fiddle in dB")).toHaveProperty("value", "−9.0");
    expect(fiddle.getByLabelText("Pan of Fiddle")).toHaveProperty("value", "L30");
    expect(row("channel/2").getByLabelText("Send of Kick, off").textContent).toBe("off");
    expect(store.getState().selected?.listener).toBe("mix/1");
  });

  it.each([
    ["group-1", ["channel/1", "channel/2", "return/1"]],
    ["mono", ["channel/1", "channel/2", "return/1", "group/1"]],
    ["matrix-1", ["house", "mono", "group/1", "mix/1", "mix/2"]],
  ])("come from those that may feed %s", (page, strips) => {
    moved({ "matrix/1/format": "stereo" });
    draw(`/mixes/${page}`);
    expect(rows().map((one) => one.dataset.row)).toEqual(strips);
  });

  it("are those that are sent alone, if wanted, and none goes away beneath a hand", () => {
    moved({ "channel/2/send/mix/1/level": null, "return/1/send/mix/1/level": null });
    draw("/mixes/1");
    const all = rows().length;
    fireEvent.click(screen.getByLabelText("Only those sent"));
    const sent = rows().map((one) => one.dataset.row);
    expect(sent.length).toBeLessThan(all);
    expect(sent).toContain("channel/1");
    act(() => moved({ "channel/1/send/mix/1/level": null, "channel/2/send/mix/1/on": true }));
    expect(rows().map((one) => one.dataset.row)).toEqual(sent);
    fireEvent.click(screen.getByLabelText("Only those sent"));
    expect(rows()).toHaveLength(all);
  });

  it("have no pan into one side", () => {
    draw("/mixes/2");
    expect(screen.queryByLabelText("Pan of Fiddle")).toBeNull();
  });

  it("are typed, switched, panned and nudged by hand, and tapped as such", () => {
    draw("/mixes/1");
    type("Level of Fiddle in dB", "up 2");
    type("Pan of Fiddle", "R20");
    fireEvent.click(row("channel/2").getByLabelText("Send of Kick, off"));
    fireEvent.keyDown(row("channel/1").getByRole("slider"), { key: "ArrowLeft", shiftKey: true });
    choose("Tap of Fiddle", "after fader");
    expect(moves()).toEqual([
      { "channel/1/send/mix/1/level": "up 2" },
      { "channel/1/send/mix/1/pan": "R20" },
      { "channel/2/send/mix/1/on": "on" },
      { "channel/1/send/mix/1/level": "down 0.1" },
      { "channel/1/send/mix/1/tap": "after_fader" },
    ]);
    const byHand = asks().map((ask) => "by_hand" in ask && !!ask.by_hand);
    expect(byHand).toEqual([true, true, true, true, false]);
  });

  it("follow another's hand while nobody types, and keep what is being typed", () => {
    draw("/mixes/1");
    const field = screen.getByLabelText("Level of Fiddle in dB");
    fireEvent.focus(field);
    fireEvent.change(field, { target: { value: "-1" } });
    moved({ "channel/1/send/mix/1/level": -30 });
    expect(field).toHaveProperty("value", "-1");
    fireEvent.keyDown(field, { key: "Escape" });
    expect(field).toHaveProperty("value", "−30.0");
    expect(done).not.toHaveBeenCalled();
  });

  it("are the strips' own faders where they are assigned", () => {
    draw("/mixes/house");
    type("Level of Kick in dB", "-5");
    fireEvent.click(row("channel/2").getByLabelText("Mute Kick"));
    fireEvent.click(row("group/1").getByLabelText(/^Band feeds House/));
    expect(moves()).toEqual([
      { "channel/2/fader": "-5" },
      { "channel/2/mute": "on" },
      { "group/1/house/on": "off" }, // groups feed the house unless told otherwise
    ]);
  });

  it("say that they are blocked as the core judges it", () => {
    draw("/mixes/1");
    const head = { serves: "ears", about: "", patched: true, listens: true };
    act(() =>
      received({
        type: "table",
        revision: 1,
        sources: ["channel/1"],
        listeners: ["mix/1"],
        heads: [head],
        level_db: [[null]],
        state: [["muted"]],
        way: [["before"]],
      }),
    );
    const slider = row("channel/1").getByRole("slider");
    expect(slider.getAttribute("aria-valuetext")).toBe("−9.0 dB, muted");
  });
});

describe("a bus as a whole", () => {
  beforeEach(() => pretend(VALUES));

  it("is named, patched as it reads, and given the next free outputs where it has none", () => {
    draw("/mixes/1");
    expect(screen.getByLabelText("Outputs of Ears fiddle")).toHaveProperty("value", "Deck 5-6");
    type("Outputs of Ears fiddle", "Deck 7-8");
    type("Name of the mix", "Ears Ada");
    expect(asks()).toEqual([
      { action: "patch_bus", bus: "mix/1", sockets: "Deck 7-8" },
      { action: "moves", moves: [{ address: "mix/1/name", typed: "Ears Ada" }] },
    ]);
    expect(screen.queryByRole("button", { name: "Next free" })).toBeNull();
    moved({ "output/local/5/source": null, "output/local/6/source": null });
    press("Next free");
    expect(asks().at(-1)).toEqual({ action: "patch_bus", bus: "mix/1" });
  });

  it("is moved among its own kind, and the page goes with it", async () => {
    const page = draw("/mixes/1");
    expect(screen.getByRole("button", { name: "Move this mix up" })).toHaveProperty(
      "disabled",
      true,
    );
    press("Move this mix down");
    expect(asks()).toEqual([{ action: "move_bus", bus: "mix/1", before: null }]);
    await waitFor(() => expect(page.at()).toBe("/mixes/2"));
  });

  it("is duplicated, and its copy is opened when it is there", async () => {
    const page = draw("/mixes/1");
    done.mockImplementationOnce(() => {
      moved({ "mix/3/format": "stereo", "mix/3/name": "Ears fiddle copy" });
      return Promise.resolve(true);
    });
    press("Duplicate");
    await waitFor(() => expect(page.at()).toBe("/mixes/3"));
  });

  it("stays where it is when a copy is refused", async () => {
    const page = draw("/mixes/1");
    done.mockImplementationOnce(() => Promise.resolve(false));
    press("Duplicate");
    await act(() => Promise.resolve());
    expect(page.at()).toBe("/mixes/1");
  });

  it("is filled from the house with an offset, seen beforehand", async () => {
    const shown = preview({ changes: 12, silenced: [["Kick", "Ears fiddle"]], moved: 3 });
    tried.mockImplementation(() => Promise.resolve(shown));
    draw("/mixes/1");
    press("Fill…");
    fireEvent.change(screen.getByLabelText("Offset in dB"), { target: { value: "-6" } });
    const told = await screen.findByTestId("consequence");
    expect(told.textContent).toContain("Falls silent: Kick for Ears fiddle");
    press("Fill it");
    const ask = { action: "fill_mix", mix: "mix/1", source: "house", offset: "-6", exceptions: "" };
    expect(asks()).toEqual([ask]);
    expect(tried.mock.calls.at(-1)![0]).toEqual(ask);
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
  });

  it("tells an unknown page the house, and a return where its sends are", () => {
    draw("/mixes/77");
    expect(screen.getByRole("region", { name: "Into house" })).toBeTruthy();
  });

  it("tells where the sends of a return stand", () => {
    draw("/mixes/return-1");
    expect(screen.getByText(/Its sends into mixes stand in each mix/)).toBeTruthy();
  });
});

describe("new mixes", () => {
  it("are offered by the address, several in one step, and not by themselves", async () => {
    pretend({ "channel/1/source": "input/local/1" });
    const page = draw("/mixes");
    expect(screen.queryByRole("dialog")).toBeNull();
    act(() => page.go("/mixes?new=1"));
    const names = await screen.findByLabelText("Names");
    fireEvent.change(names, { target: { value: "Ears fiddle, Ears bass" } });
    fireEvent.change(screen.getByLabelText("Channels to send"), { target: { value: "1-24" } });
    done.mockImplementationOnce(() => {
      moved({ "mix/4/format": "stereo" });
      return Promise.resolve(true);
    });
    press("Make 2 mixes");
    expect(asks()).toEqual([
      {
        action: "make_mixes",
        names: ["Ears fiddle", "Ears bass"],
        stereo: true,
        serves: "",
        channels: "1-24",
        level: "-12",
        patch: true,
        tap: "before_fader_after_mute",
      },
    ]);
    await waitFor(() => expect(page.at()).toBe("/mixes/4"));
  });

  it("are made as effects one after another in one gesture, until one is refused", async () => {
    pretend(VALUES);
    draw("/mixes/1");
    press("New mix…");
    choose("What to make", "shared effects");
    fireEvent.change(screen.getByLabelText("Names"), { target: { value: "Hall\nPlate\nRoom" } });
    done
      .mockImplementationOnce(() => Promise.resolve(true))
      .mockImplementationOnce(() => Promise.resolve(false));
    press("Make 3 shared effects");
    await waitFor(() => expect(done).toHaveBeenCalledTimes(2));
    const gestures = done.mock.calls.map(([, how]) => (how as { gesture: string }).gesture);
    expect(new Set(gestures).size).toBe(1);
    expect(screen.getByRole("dialog")).toBeTruthy(); // what was typed is still there
  });
});

it("calls the mains by what they are, without a number that they do not have", () => {
  pretend({ "mix/1/format": "mono", "mix/1/name": "Ears" });
  draw("/mixes/house");
  const links = screen.getAllByRole("link").map((link) => link.textContent);
  expect(links).toContain("Houseleft and right");
  expect(links).toContain("Ears1 · Ears, mono");
});
