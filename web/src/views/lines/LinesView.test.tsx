import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, describe, expect, it } from "vitest";
import { store } from "../../data/show";
import type { ListReply } from "../../data/types";
import { preview } from "../../testing/messages";
import {
  answers,
  asks,
  choose,
  done,
  draw,
  fetched,
  moved,
  movesOf,
  press,
  pretend,
  tried,
  type,
} from "../../testing/pretend";

const VALUES = {
  "line/1/place": 1,
  "line/1/name": "Fiddle",
  "line/1/microphone": "Clip",
  "line/1/performer": "Ada",
  "line/1/socket": "input/local/1",
  "line/1/phantom": true,
  "line/2/place": 2,
  "line/2/name": "Kick",
  "line/2/socket": "input/local/2",
  "line/3/place": 3,
  "line/3/name": "Keys",
  "line/3/stereo": true,
  "line/3/socket": "input/local/5",
  "line/3/socket_right": "input/local/6",
  "channel/1/source": "input/local/1",
  "channel/1/name": "Fiddle",
};
const rows = () => [...document.querySelectorAll<HTMLElement>("[data-line]")];
const names = () =>
  rows().map((row) => within(row).getByLabelText<HTMLInputElement>(/^Name, line/).value);
const tick = (name: string) => fireEvent.click(screen.getByLabelText(`Choose ${name}`));

beforeEach(() => {
  sessionStorage.clear();
  tried.mockImplementation(() => Promise.resolve(preview()));
  pretend(VALUES);
});

describe("the list", () => {
  it("shows every line with its sockets, its channel and its needs; a second side only where it is stereo", () => {
    draw("/lines");
    expect(names()).toEqual(["Fiddle", "Kick", "Keys"]);
    const [fiddle, kick, keys] = rows().map((row) => within(row));
    expect(fiddle!.getByTitle("Channel 1").textContent).toBe("channel 1");
    expect(kick!.getByText("none")).toBeTruthy();
    expect(fiddle!.getByLabelText("Fiddle needs 48 V").getAttribute("aria-pressed")).toBe("true");
    expect(keys!.getByLabelText("Socket of Keys, right")).toHaveProperty("value", "Deck 6");
    expect(fiddle!.queryByLabelText("Socket of Fiddle, right")).toBeNull();
  });

  it("is filtered by all the words typed, in any of a line's texts", () => {
    draw("/lines");
    const find = (value: string) =>
      fireEvent.change(screen.getByLabelText("Find in the lines"), { target: { value } });
    find("ada clip");
    expect(names()).toEqual(["Fiddle"]);
    find("deck 2");
    expect(names()).toEqual(["Kick"]);
    expect(screen.getByText("1 of 3")).toBeTruthy();
    find("ada kick");
    expect(names()).toEqual([]);
  });

  it("follows the order as others move lines", () => {
    draw("/lines");
    moved({ "line/2/place": 0.5 });
    expect(names()).toEqual(["Kick", "Fiddle", "Keys"]);
  });

  it("types into its fields, and sets kinds as kinds", () => {
    draw("/lines");
    type("Mic or DI of Kick", "Boundary");
    type("Level of Kick in dBu", "-10");
    fireEvent.click(screen.getByLabelText("Kick needs 48 V"));
    choose("Kind of Kick", "DI active");
    expect(asks().slice(0, 3).map(movesOf)).toEqual([
      { "line/2/microphone": "Boundary" },
      { "line/2/level_dbu": "-10" },
      { "line/2/phantom": "on" },
    ]);
    expect(asks()[3]).toMatchObject({ action: "set_kind", lines: [2], kind: "di_active" });
  });

  it("adds a line by name, and says how to begin where there is none", async () => {
    pretend({});
    draw("/lines");
    expect(screen.getByText("No lines yet")).toBeTruthy();
    fireEvent.change(screen.getByLabelText("Name of a new line"), { target: { value: " Flute " } });
    press("Add");
    expect(asks()).toEqual([{ action: "add_line", name: "Flute" }]);
    await waitFor(() =>
      expect(screen.getByLabelText("Name of a new line")).toHaveProperty("value", ""),
    );
  });

  it("shows more of the line in hand, whose channel Why answers for", () => {
    draw("/lines");
    fireEvent.focus(screen.getByLabelText("Name, line 1"));
    expect(screen.getByRole("region", { name: "More of Fiddle" })).toBeTruthy();
    const row = screen.getByLabelText("Name, line 1").closest<HTMLElement>("[data-subject]");
    expect(row!.dataset.subject).toBe("line/1");
    type("Where Fiddle stands", "left");
    press("Fiddle is stereo");
    expect(asks().map(movesOf)).toEqual([{ "line/1/where": "left" }, { "line/1/stereo": "on" }]);
  });
});

describe("a socket as typed", () => {
  it("is taken at once where nobody loses it", async () => {
    draw("/lines");
    type("Socket of Kick", "local 7");
    await waitFor(() => expect(done).toHaveBeenCalled());
    const ask = { action: "plug", line: 2, socket: "local 7", right: false };
    expect(asks()).toEqual([ask]);
    expect(tried.mock.calls[0]![0]).toEqual(ask);
  });

  it("is shown first where another loses it, and left on Escape", async () => {
    const losses = [{ who: "Fiddle", loses: "Deck 1", to: "Kick" }];
    tried.mockImplementation(() => Promise.resolve(preview({ losses })));
    draw("/lines");
    type("Socket of Kick", "local 1");
    expect((await screen.findByTestId("consequence")).textContent).toContain(
      "Fiddle loses Deck 1 (Kick)",
    );
    expect(done).not.toHaveBeenCalled();
    fireEvent.keyDown(window, { key: "Escape" });
    expect(screen.queryByTestId("consequence")).toBeNull();
  });
});

it("offers a line's new name to the channel that was called after it, and to no other", async () => {
  const named = (before: number) =>
    tried.mockImplementation(() => Promise.resolve(preview({ changes: before })));
  done.mockImplementation((ask) => {
    if (ask.action === "moves") moved({ "line/1/name": "Violin" });
    return Promise.resolve(true);
  });
  named(1); // the channel has a name of its own already
  draw("/lines");
  type("Name, line 1", "Violin");
  await waitFor(() => expect(done).toHaveBeenCalledTimes(1));
  expect(screen.queryByText(/still called/)).toBeNull();
  named(0);
  type("Name, line 1", "Viola");
  await screen.findByText(/still called/);
  press("Rename the channel too");
  expect(asks().at(-1)).toEqual({ action: "name_channels", lines: [1] });
  await waitFor(() => expect(screen.queryByText(/still called/)).toBeNull());
  done.mockImplementation(() => Promise.resolve(true));
});

describe("chosen lines", () => {
  beforeEach(() => void draw("/lines"));

  it("are given one value in one edit", () => {
    tick("Fiddle");
    tick("Keys");
    choose("Field to set", "Performer");
    fireEvent.change(screen.getByLabelText("Value to set"), { target: { value: "Bo" } });
    press("Set");
    choose("Field to set", "Needs 48 V");
    press("Set");
    expect(asks().map(movesOf)).toEqual([
      { "line/1/performer": "Bo", "line/3/performer": "Bo" },
      { "line/1/phantom": "on", "line/3/phantom": "on" },
    ]);
    expect(asks()[0]).toMatchObject({ says: "Performer of 2 lines" });
  });

  it("are moved past their neighbours, duplicated, and have their gains set", () => {
    tick("Kick");
    press("Up");
    press("Down");
    fireEvent.keyDown(rows()[1]!, { key: "ArrowUp", altKey: true });
    press("Duplicate");
    press("Set gains");
    const move = { action: "move_lines", lines: [2] };
    expect(asks()).toEqual([
      { ...move, before: 1 },
      { ...move, before: null },
      { ...move, before: 1 },
      { action: "duplicate_lines", lines: [2] },
      { action: "suggest_gains", lines: [2] },
    ]);
  });

  it("are removed after it was said what becomes of them, with their channels or without", async () => {
    fireEvent.click(screen.getByLabelText("Choose all lines shown"));
    press("Remove…");
    fireEvent.click(screen.getByLabelText("Free their channels too"));
    await waitFor(() => expect(tried.mock.calls.at(-1)?.[0]).toMatchObject({ free: true }));
    press("Remove 3 lines");
    expect(asks()).toEqual([{ action: "remove_lines", lines: [1, 2, 3], free: true }]);
    await waitFor(() => expect(screen.queryByTestId("removing")).toBeNull());
  });
});

describe("a list", () => {
  const draft = (name: string, more: object = {}) => ({
    name,
    kind: "dynamic",
    stereo: false,
    phantom: false,
    sockets: ["Deck 3"],
    channels: [4],
    state: "new",
    changes: [],
    told: [],
    ...more,
  });
  const row = (number: number, what: string, lines: object[], more: object = {}) => ({
    key: `r${number}`,
    number,
    what,
    says: "",
    section: "",
    told: [],
    cells: [String(number), "x"],
    lines,
    ...more,
  });
  const LIST = {
    file: "f1",
    name: "band.csv",
    said: "CSV with commas",
    shown: "s1",
    sheet: 0,
    sheets: [{ place: 0, name: "band", hidden: false }],
    lists: [
      {
        heading: 1,
        roles: ["number", "name"],
        titles: ["Ch", "Name"],
        columns: [0, 1],
        rows: [
          row(2, "line", [draft("Fiddle", { state: "changed", changes: ["Mic: Clip → Tube"] })]),
          row(3, "section", [], { section: "Drums", says: "Drums" }),
          row(4, "line", [draft("Snare")], { section: "Drums" }),
          row(5, "problem", [], { says: "two names in one row", section: "Drums" }),
        ],
      },
    ],
    role_choices: ["ignore", "number", "name", "notes"],
    boxes: [{ name: "sl", title: "SL", box: null, sockets: 8 }],
    gone: [{ line: 2, name: "Kick", leaves: false, says: "Channel 2 is left without a source." }],
    has_numbers: true,
    numbered: true,
    even_pairs: 1,
    new: 1,
    changed: 1,
    same: 0,
    problems: 1,
    refused: null,
    unpatched: ["Snare"],
  } as unknown as ListReply;
  const sent = () => JSON.parse(String(fetched.mock.calls.at(-1)![1]!.body));
  const bring = async () => {
    answers.set("/api/samples", []);
    answers.set("/api/shows/", LIST);
    draw("/lines");
    fireEvent.paste(rows()[0]!, { clipboardData: { getData: () => "1\tFiddle\n2\tSnare" } });
    await screen.findByTestId("list-summary");
  };

  it("that is pasted is read, and nothing is taken until it is said so", async () => {
    await bring();
    expect(screen.getByTestId("list-summary").textContent).toBe(
      "1 new, 1 changed, 1 cannot be takenNo channel is left for Snare.",
    );
    expect(screen.getByText("Mic: Clip → Tube")).toBeTruthy();
    expect(screen.getByText("Cannot be taken: two names in one row")).toBeTruthy();
    expect(done).not.toHaveBeenCalled();
    answers.set("/api/shows/", { says: "2 lines taken", revision: 2 });
    press("Take 2 lines");
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    expect(sent()).toMatchObject({ shown: "s1", choices: { patch: true, out: [] } });
    expect(store.getState().notices.at(-1)?.text).toBe("2 lines taken. Undo takes it all back.");
  });

  it("is looked at again after each choice: rows, a whole section, columns, boxes, ways", async () => {
    await bring();
    const look = async (change: () => void, expected: object) => {
      change();
      await waitFor(() => expect(sent()).toMatchObject(expected));
      await waitFor(() => expect(screen.queryByText("One moment…")).toBeNull());
    };
    await look(() => fireEvent.click(screen.getByLabelText("Take row 2")), { out: ["r2"] });
    await look(() => fireEvent.click(screen.getByLabelText("Take the rows under Drums")), {
      out: ["r2", "r4", "r5"],
    });
    await look(() => choose("Column 2 is", "notes"), {
      roles: [{ list: 0, column: 1, role: "notes" }],
    });
    await look(() => choose("Box SL is", "Deck"), { boxes: { sl: "local" } });
    await look(() => choose("Stereo pairs on even and odd", "move to odd and even"), {
      odd_pairs: true,
    });
    await look(() => fireEvent.click(screen.getByLabelText("Kick leaves the list")), {
      leaving: [2],
    });
    await look(() => choose("Channels", "none: lines only"), { patch: false, numbered: null });
  });

  it("that cannot be taken any more is shown as it is now, with the refusal", async () => {
    await bring();
    fetched.mockImplementationOnce(() =>
      Promise.resolve(Response.json({ message: "The show has moved on." }, { status: 409 })),
    );
    press("Take 2 lines");
    expect((await screen.findByRole("alert")).textContent).toBe("The show has moved on.");
    expect(screen.getByTestId("list-summary")).toBeTruthy();
  });

  it("that ships with the application is waited for, the last one wanted; told if it cannot be had", async () => {
    answers.set("/api/samples", [
      { name: "quay-band.csv", about: "Eight lines" },
      { name: "choir.csv", about: "Voices" },
    ]);
    draw("/lines");
    press("Import a list…");
    const asked: ((reply: Response) => void)[] = [];
    for (const name of ["quay-band.csv", "choir.csv"]) {
      const sample = await screen.findByRole("button", { name });
      fetched.mockImplementationOnce(() => new Promise((settle) => asked.push(settle)));
      fireEvent.click(sample);
      await screen.findByText("One moment…");
    }
    asked[0]!(new Response("Ch,Name"));
    asked[1]!(Response.json({ message: "The store does not answer." }, { status: 503 }));
    expect((await screen.findByRole("alert")).textContent).toBe("The store does not answer.");
    expect(screen.queryByText("One moment…")).toBeNull();
    expect(fetched.mock.calls.some(([path]) => path.startsWith("/api/shows/"))).toBe(false);
  });

  it("of one value goes into the field that it is pasted into", () => {
    draw("/lines");
    fireEvent.paste(screen.getByLabelText("Name, line 1"), {
      clipboardData: { getData: () => "Violin" },
    });
    expect(screen.queryByRole("dialog")).toBeNull();
  });

  it("that was given with a new show is shown at once, and its ears are made when it is taken", async () => {
    pretend({});
    sessionStorage.setItem(
      `begun ${store.getState().desk!.show.id}`,
      JSON.stringify({ list: "f1", ears: "Ada; Bo", channels: "1-4", fault: "" }),
    );
    answers.set("/api/shows/", LIST);
    draw("/lines?new=1");
    await screen.findByTestId("list-summary");
    answers.set("/api/shows/", { says: "2 lines taken", revision: 2 });
    await act(async () => void press("Take 2 lines"));
    await waitFor(() => expect(asks()).toHaveLength(1));
    expect(asks()[0]).toMatchObject({
      action: "make_mixes",
      names: ["Ada", "Bo"],
      channels: "1-4",
    });
    expect(sessionStorage.length).toBe(0);
  });
});
