import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, describe, expect, it } from "vitest";
import { received, store } from "../../data/show";
import { preview, scene, sceneList, sceneValues } from "../../testing/messages";
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
  watched,
} from "../../testing/pretend";

const VALUES = {
  ...sceneValues("1 Overture", "2.5 Market", "3 Storm"),
  "channel/1/name": "Fiddle",
  "channel/1/source": "input/local/1",
  "mix/1/format": "stereo",
  "mix/1/name": "Ears",
};
const told = (more: Parameters<typeof scene>[0] = {}) => act(() => received(scene(more)));
const names = () =>
  within(screen.getByRole("list", { name: "Scenes" }))
    .getAllByRole("button")
    .map((row) => row.textContent);

beforeEach(() => {
  sessionStorage.clear();
  pretend(VALUES, sceneList([1, 2, 3], [2]));
});

describe("the list", () => {
  it("shows numbers as people say them, now and next, and who is passed by", () => {
    moved({ "run/now": "scene/1", "run/next": "scene/3" });
    draw("/scenes/1");
    expect(names()).toEqual(["1Overturenow", "2.5Market7", "3Stormnext"]);
    expect(screen.getByText("Market").className).toContain("line-through");
    expect(watched).toHaveBeenCalledWith({ scene: "scene/1" });
  });

  it("says what to do while there is none, and opens what was stored", async () => {
    pretend({ "channel/1/source": "input/local/1" });
    const page = draw("/scenes");
    expect(screen.getByText("No scene yet")).toBeTruthy();
    fireEvent.change(screen.getByLabelText("Name of the new scene"), {
      target: { value: "Overture" },
    });
    done.mockImplementationOnce(() => {
      moved(sceneValues("1 Overture"));
      return Promise.resolve(true);
    });
    press("Store");
    expect(asks()).toEqual([
      { action: "store_scene", name: "Overture", preset: "everything", after: null },
    ]);
    await waitFor(() => expect(page.at()).toBe("/scenes/1"));
  });

  it("stores behind the scene in hand, carrying what that carries or the sends of one mix", () => {
    draw("/scenes/2");
    press("Store");
    choose("What it carries", "Sends of Ears");
    press("Store");
    const presets = asks().map((ask) => [
      "preset" in ask && ask.preset,
      "after" in ask && ask.after,
    ]);
    expect(presets).toEqual([
      ["scene/2", "scene/2"],
      ["mix/1", "scene/2"],
    ]);
  });
});

describe("a scene", () => {
  it("is renamed, renumbered, duplicated, stored again and removed by its own words", () => {
    draw("/scenes/2");
    type("Name of the scene", "Market day");
    type("Number of the scene", "2.7");
    press("Duplicate, 2.5 Market");
    press("Store again, 2.5 Market");
    press("Remove, 2.5 Market");
    expect(asks().slice(1)).toEqual([
      { action: "renumber_scene", scene: "scene/2", number: "2.7" },
      { action: "duplicate_scene", scene: "scene/2" },
      { action: "store_again", scene: "scene/2" },
      { action: "remove_scenes", scenes: ["scene/2"] },
    ]);
    expect(movesOf(asks()[0]!)).toEqual({ "scene/2/name": "Market day" });
  });

  it("tells what its recall would do: to whom, in which values, what is held and left out", () => {
    draw("/scenes/1");
    expect(screen.getByText("One moment…")).toBeTruthy();
    told({
      says: "9 values change; Ears loses Fiddle.",
      warns: ["Fiddle loses self"],
      changing: 9,
      changes: [
        {
          strip: "channel/1",
          whose: "Fiddle",
          what: "Fader",
          was: "−3.0",
          now: "off",
          pin: "channel/1/pinned_fader",
        },
      ],
      beneath: 1,
      listeners: [
        {
          listener: "mix/1",
          name: "Ears",
          opens: 0,
          falls_silent: 1,
          moves: 2,
          cells: [{ source: "channel/1", name: "Fiddle", was_db: -9, now_db: null }],
        },
      ],
      pinned: [{ name: "Kick", what: "Mute", says: "Kick, Mute", pin: "channel/2/pinned_mute" }],
      left_out: [{ name: "Mix 9", what: "Sends", why: "is not in use" }],
    });
    const block = (name: string) =>
      within(screen.getByRole("region", { name })).getAllByRole("listitem");
    expect(screen.getByTestId("in-one-line").textContent).toBe(
      "9 values change; Ears loses Fiddle.",
    );
    expect(
      within(screen.getByRole("list", { name: "Warnings" })).getByText("Fiddle loses self"),
    ).toBeTruthy();
    expect(block("Who hears it")[0]!.textContent).toBe(
      "Ears1 fall silent, 2 moveFiddle−9.0 → silent",
    );
    expect(block("What changes").map((row) => row.textContent)).toEqual([
      "FiddleFader−3.0 → off",
      "1 value changes beneath fittings",
      "and 8 more",
    ]);
    expect(block("Left out, or fitted")[0]!.textContent).toBe("Mix 9 is not in use");
    press("pin, Fiddle, Fader");
    expect(movesOf(asks().at(-1)!)).toEqual({ "channel/1/pinned_fader": "on" });
  });

  it("is recalled by one press, by two where sources change, and not at all where it is refused", () => {
    draw("/scenes/1");
    told();
    press("Recall, 1 Overture");
    expect(asks()).toEqual([{ action: "recall_scene", scene: "scene/1", sources: false }]);
    told({ sources: 2 });
    const key = () => screen.getByRole("button", { name: /change 2 sources/ });
    fireEvent.click(key());
    expect(done).toHaveBeenCalledTimes(1);
    fireEvent.click(key());
    expect(asks().at(-1)).toEqual({ action: "recall_scene", scene: "scene/1", sources: true });
    told({ refused: "It would feed back.", says: "It would feed back." });
    expect(screen.getByRole("button", { name: "Recall, 1 Overture" })).toHaveProperty(
      "disabled",
      true,
    );
    expect(screen.getByRole("alert").textContent).toBe("It would feed back.");
  });

  it("keeps the chosen tab from scene to scene, and an answer for another is not its own", () => {
    draw("/scenes/1");
    fireEvent.mouseDown(screen.getByRole("tab", { name: /What it holds/ }), { button: 0 });
    told({ scene: "scene/3" });
    expect(screen.getByText("One moment…")).toBeTruthy();
    told({ strips: [{ holder: "channel/1", name: "Fiddle", marks: ["all", "asleep", "none"] }] });
    expect(screen.getByRole("grid", { name: "What scene Overture carries" })).toBeTruthy();
    expect(sessionStorage.getItem("scene-tab")).toBe("holds");
  });
});

describe("what it holds", () => {
  const strips = [
    { holder: "channel/1", name: "Fiddle", marks: ["all", "asleep", "none"] },
    { holder: "mix/1", name: "Ears", marks: ["some", "none", "no such"] },
  ] as NonNullable<Parameters<typeof scene>[0]>["strips"];
  const grid = () => screen.getByRole("grid", { name: "What scene Overture carries" });
  const value = {
    leaf: "fader",
    cell: "fader",
    label: "Fader",
    value: "−5.0",
    stands: "−3.0",
    asleep: false,
  };
  const holds = () =>
    act(() =>
      received({
        type: "held",
        scene: "scene/1",
        holder: "channel/1",
        name: "Fiddle",
        values: [value, { ...value, leaf: "mute", label: "Mute", value: "on", asleep: true }],
      }),
    );

  beforeEach(() => {
    sessionStorage.setItem("scene-tab", "holds");
    draw("/scenes/1");
    told({ strips });
  });

  it("is painted over strips against aspects, and by keys", () => {
    const cells = within(grid())
      .getAllByRole("gridcell")
      .map((cell) => cell.getAttribute("aria-label"));
    expect(cells.slice(0, 3)).toEqual([
      "Fiddle, carried",
      "Fiddle, asleep, with its values",
      "Fiddle, not carried",
    ]);
    fireEvent.keyDown(grid(), { key: "ArrowRight" });
    fireEvent.keyDown(grid(), { key: "ArrowRight", shiftKey: true });
    fireEvent.keyDown(grid(), { key: " " });
    const set = { action: "set_cells", scene: "scene/1" };
    expect(asks()).toEqual([
      {
        ...set,
        strips: [{ holder: "channel/1", cells: [], aspects: ["mute", "sends"] }],
        on: true,
      },
    ]);
    const cell = (key: string) => grid().querySelector(`[data-member="${key}"]`)!;
    fireEvent.pointerDown(cell("channel/1/fader"), { button: 0, pointerType: "mouse" });
    fireEvent.pointerOver(cell("mix/1/fader"));
    fireEvent.pointerUp(grid());
    const both = ["channel/1", "mix/1"].map((holder) => ({
      holder,
      cells: [],
      aspects: ["fader"],
    }));
    expect(asks().at(-1)).toEqual({ ...set, strips: both, on: false });
  });

  it("is typed for many strips at once, and what was typed stays where it is refused", async () => {
    type("Strips to put in or take out", "1-8");
    choose("What of them", "all of it");
    done.mockImplementationOnce(() => Promise.resolve(false));
    press("Put in");
    await act(() => Promise.resolve());
    expect(screen.getByLabelText("Strips to put in or take out")).toHaveProperty("value", "1-8");
    press("Take out");
    expect(asks().map((ask) => "on" in ask && ask.on)).toEqual([true, false]);
    expect(asks().every((ask) => "aspects" in ask && ask.aspects?.[0] === "all")).toBe(true);
  });

  it("reads every value beside what stands, and only those awake can be typed", () => {
    expect(watched).toHaveBeenCalledWith({ held: "channel/1" });
    holds();
    const rows = within(screen.getByRole("list", { name: "Values in the scene" })).getAllByRole(
      "listitem",
    );
    expect(rows.map((row) => row.textContent)).toEqual(["Fader−3.0", "Mute−3.0on"]);
    expect(screen.getByLabelText("Fader of Fiddle in the scene")).toHaveProperty("value", "−5.0");
    expect(screen.queryByLabelText("Mute of Fiddle in the scene")).toBeNull();
  });

  it("shows every scene that a new value changes before it is taken, and who hears it", async () => {
    holds();
    const row = (number: number, now: string) => ({
      scene: `scene/${number}`,
      name: `${number} Scene`,
      was: "−5.0",
      now,
      stopped: number === 2,
    });
    const scenes = [row(1, "−2.0"), row(2, "−2.0"), row(3, "−2.0"), row(4, "")];
    const shown = preview({ scenes });
    tried.mockImplementation(() => Promise.resolve(shown));
    type("Fader of Fiddle in the scene", "-2");
    const reaching = within(await screen.findByTestId("reaching"));
    const rows = () => reaching.getAllByRole("listitem").map((one) => one.textContent);
    expect(rows()[0]).toBe("1 Scene−5.0 → −2.0one moment…");
    const there = (number: number, hearing: string[] | null) => ({
      scene: `scene/${number}`,
      hearing,
    });
    const tell = (id: string, ...told: ReturnType<typeof there>[]) =>
      act(() => received({ type: "hearing", id, scenes: told }));
    tell("another", there(1, ["Somebody else's"]));
    tell(shown.id, there(1, ["Ears"]));
    tell(shown.id, there(2, []), there(3, null));
    expect(rows()).toEqual([
      "1 Scene−5.0 → −2.0heard by Ears",
      "2 Scene−5.0 → −2.0 at its endnobody hears it",
      "3 Scene−5.0 → −2.0it cannot be recalled, so who hears it is not known",
    ]);
    expect(reaching.getByText("1 scenes do not carry it")).toBeTruthy();
    choose("Where it is changed", "from here to the end");
    await waitFor(() =>
      expect(tried.mock.calls.at(-1)![0]).toMatchObject({ scope: "onward", numbers: "" }),
    );
    const scope = () => screen.getByRole("combobox", { name: "Where it is changed" });
    await waitFor(() => expect(scope().dataset.chosen).toBe("onward")); // what is shown is what is taken
    expect(done).not.toHaveBeenCalled();
    await waitFor(() => press("Change 3 scenes")); // what it comes to is asked for anew
    expect(asks()).toEqual([
      {
        action: "set_in_scenes",
        scene: "scene/1",
        holder: "channel/1",
        leaf: "fader",
        typed: "-2",
        scope: "onward",
        numbers: "",
      },
    ]);
    expect(screen.queryByTestId("reaching")).toBeNull();
  });

  it("asks anew what it would do when the link broke before all was told", async () => {
    holds();
    tried.mockImplementation(() => Promise.resolve(preview({ scenes: [] })));
    type("Fader of Fiddle in the scene", "-2");
    await screen.findByTestId("reaching");
    expect(tried).toHaveBeenCalledTimes(1);
    act(() => store.setState({ status: "lost" }));
    expect(tried).toHaveBeenCalledTimes(1);
    act(() => store.setState({ status: "live" }));
    await waitFor(() => expect(tried).toHaveBeenCalledTimes(2));
    expect(tried.mock.calls[1]).toEqual(tried.mock.calls[0]);
  });

  it("leaves a value that is refused as it was, and says why", async () => {
    holds();
    tried.mockImplementation(() => Promise.resolve("Not a level: loud."));
    type("Fader of Fiddle in the scene", "loud");
    await waitFor(() => expect(store.getState().notices.at(-1)?.text).toBe("Not a level: loud."));
    expect(screen.queryByTestId("reaching")).toBeNull();
  });
});

describe("beside another, and times", () => {
  it("lays it beside the one before it, or any other", async () => {
    sessionStorage.setItem("scene-tab", "beside");
    const differences = [
      { holder: "channel/1", name: "Fiddle", label: "Fader", one: "−3.0", other: "−5.0" },
    ];
    answers.set("/api/shows/", { differences, differing: 4 });
    draw("/scenes/2");
    await screen.findByText("and 3 more");
    expect(fetched.mock.calls.at(-1)![0]).toContain("one=1&other=2");
    answers.set("/api/shows/", { differences: [], differing: 0 });
    choose("Beside which scene", "3 Storm");
    await screen.findByText("They hold the same.");
    answers.clear();
    moved({ "channel/1/fader": -1 });
    expect((await screen.findByRole("alert")).textContent).toContain("cannot be reached");
  });

  it("gives kinds of values times of their own, or none again", () => {
    sessionStorage.setItem("scene-tab", "times");
    moved({ "scene/1/seconds": 2, "scene/1/seconds_sends": 5 });
    draw("/scenes/1");
    expect(screen.getByLabelText("Sends and assignments take, 1 Overture")).toHaveProperty(
      "value",
      "5 s",
    );
    expect(screen.getByLabelText("Pans take, 1 Overture")).toHaveProperty("value", "");
    type("Sends and assignments take, 1 Overture", "");
    type("Pans take, 1 Overture", "3");
    expect(asks().map(movesOf)).toEqual([
      { "scene/1/seconds_sends": "-1" },
      { "scene/1/seconds_pans": "3" },
    ]);
  });
});
