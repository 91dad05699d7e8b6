import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, describe, expect, it } from "vitest";
import { received } from "../../data/show";
import type { Ask } from "../../data/types";
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
  watched,
} from "../../testing/pretend";

const VALUES = {
  "channel/1/name": "Fiddle",
  "channel/1/source": "input/local/1",
  "channel/1/fader": -5,
  "channel/1/dca/1/on": true,
  "channel/2/name": "Kick",
  "channel/2/source": "input/local/2",
  "channel/2/fader": -8,
  "channel/3/source": "input/local/3",
  "dca/1/name": "Strings",
  "dca/1/fader": -3,
  "dca/1/dca/2/on": true,
  "dca/2/name": "Band",
  "mix/1/format": "stereo",
  "mix/1/name": "Ears",
};
const felt = (keep: { address: string; value: number }[] = []) =>
  preview({
    compensation: { jumps: [["channel/2", -8, -11]], keep, lacking: [], silenced: [] },
  });
const grid = (title: string) => screen.getByRole("grid", { name: `Strips against ${title}` });
const marks = (title: string, strip: string) =>
  within(grid(title))
    .getAllByRole("gridcell")
    .map((cell) => cell.getAttribute("aria-label")!)
    .filter((label) => label.startsWith(`${strip}, `))
    .map((label) => label.slice(strip.length + 2));
const nobodyFeelsIt = () => tried.mockImplementation(() => Promise.resolve(preview()));

beforeEach(() => {
  nobodyFeelsIt();
  pretend(VALUES);
});

describe("strips against DCAs", () => {
  beforeEach(() => void draw("/dcas"));

  it("show who is in, who by way of another, and what each strip comes to", () => {
    const by = ["dca/1", "dca/2"];
    const strips = { "channel/1": { by, level_db: -8, parts: [["dca/1", -3]], muted: [] } };
    act(() => received({ type: "ruled", revision: 1, whole: true, strips } as never));
    expect(marks("DCAs", "Fiddle")).toEqual(["member", "by way of another"]);
    expect(marks("DCAs", "Kick")).toEqual(["no member", "no member"]);
    expect(marks("DCAs", "Strings")).toEqual(["itself", "member"]);
    const heads = within(grid("DCAs")).getAllByRole("rowheader");
    expect(heads[0]!.textContent).toBe("Fiddle 1−8.0");
    expect(heads[1]!.textContent).toBe("Kick 2−8.0");
    act(() =>
      received({
        type: "ruled",
        revision: 2,
        whole: false,
        strips: { "channel/1": { by, level_db: -8, parts: [], muted: ["dca/2/mute"] } },
      }),
    );
    expect(heads[0]!.textContent).toBe("Fiddle 1muted");
  });

  it("are found by name or number", () => {
    fireEvent.change(screen.getByLabelText("Find strips"), { target: { value: "channel 3" } });
    expect(within(grid("DCAs")).getAllByRole("rowheader")).toHaveLength(1);
  });

  it("take a member at once where nobody feels it", async () => {
    fireEvent.keyDown(grid("DCAs"), { key: "ArrowDown" });
    fireEvent.keyDown(grid("DCAs"), { key: " " });
    await waitFor(() => expect(asks()).toHaveLength(1));
    expect(movesOf(asks()[0]!)).toEqual({ "channel/2/dca/1/on": true });
    expect(tried.mock.calls[0]![0]).toEqual(asks()[0]);
  });

  it("show what jumps first, and keep the levels in the same edit when asked to", async () => {
    tried.mockImplementation(() =>
      Promise.resolve(felt([{ address: "channel/2/fader", value: -5 }])),
    );
    fireEvent.keyDown(grid("DCAs"), { key: "ArrowDown" });
    fireEvent.keyDown(grid("DCAs"), { key: " " });
    expect((await screen.findByTestId("consequence")).textContent).toContain("Kick −8.0 → −11.0");
    expect(done).not.toHaveBeenCalled();
    press("Keep levels");
    expect(movesOf(asks()[0]!)).toEqual({ "channel/2/dca/1/on": true, "channel/2/fader": -5 });
    await waitFor(() => expect(screen.queryByRole("button", { name: "Leave it" })).toBeNull());
  });

  it("leave everything as it is on Escape", async () => {
    tried.mockImplementation(() => Promise.resolve(felt()));
    fireEvent.keyDown(grid("DCAs"), { key: " " });
    await screen.findByTestId("consequence");
    expect(screen.queryByRole("button", { name: "Keep levels" })).toBeNull();
    fireEvent.keyDown(window, { key: "Escape" });
    expect(screen.queryByTestId("consequence")).toBeNull();
    expect(done).not.toHaveBeenCalled();
  });

  it("are set in the head: members as typed, level and mute", async () => {
    expect(screen.getByLabelText("Members of Strings")).toHaveProperty("value", "1");
    expect(screen.getByLabelText("Members of Band")).toHaveProperty("value", "dca 1");
    type("Level of Strings in dB", "-6");
    fireEvent.click(screen.getByLabelText("Mute Strings"));
    type("Members of Strings", "1-3");
    await waitFor(() => expect(asks()).toHaveLength(3));
    expect(asks().slice(0, 2).map(movesOf)).toEqual([
      { "dca/1/fader": "-6" },
      { "dca/1/mute": "on" },
    ]);
    expect(asks()[2]).toEqual({
      action: "members",
      ruler: "dca/1",
      strips: "1-3",
      exactly: true,
      on: true,
    });
  });

  it("are named several at once, also from a pasted column", () => {
    const names = screen.getByLabelText("Names of new DCAs");
    fireEvent.paste(names, { clipboardData: { getData: () => "Bass\nVoices\n" } });
    expect(names).toHaveProperty("value", "Bass, Voices");
    press("Make 2");
    expect(asks()).toEqual([{ action: "make_rulers", kind: "dca", names: ["Bass", "Voices"] }]);
    expect(screen.getByText("5 free")).toBeTruthy();
  });
});

describe("one DCA", () => {
  it("has its members typed, added by family, and taken out one by one", async () => {
    draw("/dcas/1");
    const members = within(screen.getByRole("region", { name: "Members" }));
    expect(members.getByRole("listitem").textContent).toBe("Fiddle1−5.0×");
    const text = members.getByLabelText("Strips to add or take out");
    fireEvent.change(text, { target: { value: "2, 3" } });
    press("Take out");
    choose("Add a family of lines", "strings");
    press("Take Fiddle out");
    await waitFor(() => expect(asks()).toHaveLength(3));
    expect(asks()).toEqual([
      { action: "members", ruler: "dca/1", strips: "2, 3", on: false },
      { action: "members", ruler: "dca/1", family: "strings", on: true },
      { action: "moves", moves: [{ address: "channel/1/dca/1/on", value: false }] },
    ] satisfies Ask[]);
    expect(watched).toHaveBeenCalledWith({ ruler: "dca/1" });
  });

  it("is cleared at once where nobody feels it, else seen first; then all DCAs are shown", async () => {
    const page = draw("/dcas/1");
    tried.mockImplementation(() => Promise.resolve(felt()));
    press("Clear");
    await screen.findByTestId("consequence");
    expect(done).not.toHaveBeenCalled();
    nobodyFeelsIt();
    press("Clear");
    await waitFor(() => expect(page.at()).toBe("/dcas"));
    expect(asks()).toEqual([{ action: "clear_ruler", ruler: "dca/1" }]);
  });

  it("tells who loses what by it, who is still heard, and moves their taps in one press", () => {
    draw("/dcas/1");
    expect(screen.getByText("One moment…")).toBeTruthy();
    const behind = {
      says: "Tap 1 send behind the mute",
      moves: [{ address: "channel/1/send/mix/1/tap", value: "before_fader_after_mute" }],
    };
    const along = {
      says: "Mute group of its members and Hall",
      moves: [{ address: "return/1/mute_group/1/on", value: true }],
    };
    const listener = { listener: "mix/1", name: "Ears", closes: 0, follows: 0, still: ["Fiddle"] };
    const house = { listener: "house", name: "House", closes: 1, follows: 2, still: [] };
    act(() =>
      received({
        type: "reach",
        revision: 1,
        ruler: "dca/1",
        alone: ["channel/1"],
        closed: 1,
        behind,
        tails: [
          { strip: "return/1", name: "Hall", others: [] },
          { strip: "return/2", name: "Room", others: ["Kick"] },
        ],
        along,
        listeners: [house, listener],
      }),
    );
    const region = within(screen.getByRole("region", { name: "Who loses what" }));
    expect(region.getAllByRole("listitem").map((row) => row.textContent)).toEqual([
      "House1 silent2 follow",
      "Earsstill heard: Fiddle",
    ]);
    expect(region.getByText("1 listener still hear members")).toBeTruthy();
    press("Tap 1 send behind the mute");
    expect(region.getByText(/Hall, Room \(Kick too\)/)).toBeTruthy();
    press("Mute group of its members and Hall");
    expect(asks()).toEqual([
      { action: "moves", ...behind },
      { action: "moves", ...along },
    ]);
    expect(screen.getByText("alone")).toBeTruthy();
  });
});

describe("mute groups", () => {
  it("are made of all inputs or all ears in one press, and say what to do while there is none", () => {
    draw("/mutes");
    expect(screen.getByText(/silences all its members with one key/)).toBeTruthy();
    press("+ All inputs");
    press("+ All ears");
    expect(asks()).toEqual([
      { action: "mute_all", what: "inputs" },
      { action: "mute_all", what: "ears" },
    ]);
  });

  it("say how much a press closes, and take none while they are safe", () => {
    pretend({ ...VALUES, "mute_group/1/name": "Band", "channel/1/mute_group/1/on": true });
    draw("/mutes/1");
    act(() =>
      received({
        type: "reach",
        revision: 1,
        ruler: "mute_group/1",
        alone: [],
        closed: 12,
        behind: null,
        tails: [],
        along: null,
        listeners: [],
      }),
    );
    press("Mute 12 cells");
    expect(asks().map(movesOf)).toEqual([{ "mute_group/1/on": true }]);
    moved({ "mute_group/1/safe": true });
    expect(screen.getByRole("button", { name: "Mute 12 cells" })).toHaveProperty("disabled", true);
    press("locked: press to unlock, Band");
    press("a mute, like the key: make it a seal, Band");
    expect(asks().slice(1).map(movesOf)).toEqual([
      { "mute_group/1/safe": false },
      { "mute_group/1/hard": true },
    ]);
  });
});

describe("gangs and pairs", () => {
  it("say what moves together, rest, and let a pan go the other way", () => {
    pretend({
      ...VALUES,
      "gang/1/name": "Toms",
      "gang/1/carries_pan": true,
      "channel/1/gang/1/on": true,
    });
    draw("/gangs/1");
    press("Pan mirrored, Fiddle");
    press("rest, Toms");
    const aspect = screen.getByRole("button", { name: "Pans, Toms" });
    expect(aspect.getAttribute("aria-pressed")).toBe("true");
    fireEvent.click(aspect);
    expect(asks().map(movesOf)).toEqual([
      { "channel/1/pan_mirrored": "on" },
      { "gang/1/suspended": true },
      { "gang/1/carries_pan": false },
    ]);
    expect(watched).not.toHaveBeenCalledWith({ ruler: "gang/1" });
  });

  it("are linked after what becomes equal was shown, and parted by their names", async () => {
    pretend({ ...VALUES, "channel/1/linked": true });
    tried.mockImplementation(() =>
      Promise.resolve(preview({ changes: 4, says: "Pairs 3-4 linked" })),
    );
    draw("/gangs/pairs");
    press("Part Fiddle and Kick");
    fireEvent.change(screen.getByLabelText("Pairs to link"), { target: { value: "3" } });
    press("Link");
    await screen.findByTestId("consequence");
    press("Take it");
    await waitFor(() => expect(asks()).toHaveLength(2));
    const link = { action: "link_pairs", kind: "channel" };
    expect(asks()).toEqual([
      { ...link, strips: "1", on: false },
      { ...link, strips: "3", on: true, spread: true },
    ]);
  });
});
