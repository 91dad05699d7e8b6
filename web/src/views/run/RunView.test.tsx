import { act, fireEvent, screen, within } from "@testing-library/react";
import { beforeEach, describe, expect, it } from "vitest";
import { received, store } from "../../data/show";
import { scene, sceneList, sceneValues } from "../../testing/messages";
import { asks, done, draw, moved, movesOf, press, pretend, watched } from "../../testing/pretend";

const VALUES = {
  ...sceneValues("1 Overture", "2 Market", "3 Storm", "4 Farewell"),
  "run/now": "scene/1",
  "run/next": "scene/2",
  "scene/2/notes": "Ada comes on",
  "dca/1/name": "Band",
  "dca/1/fader": -3,
  "mute_group/1/name": "All inputs",
  "mute_group/1/safe": true,
  "mute_group/2/name": "Ears",
  "channel/1/name": "Fiddle",
  "channel/1/source": "input/local/1",
  "channel/1/fader": -5,
  "channel/2/name": "Kick",
  "channel/2/source": "input/local/2",
};
const board = (word: string) => screen.getByRole("region", { name: word }).textContent!;
const key = (name: string, target: Element | Window = window, how: object = {}) =>
  fireEvent.keyDown(target, { key: name, ...how });
const go = () => screen.getByRole("button", { name: /^Go/ });

beforeEach(() => pretend(VALUES, sceneList([1, 2, 3, 4], [3])));

describe("go", () => {
  beforeEach(() => {
    draw("/run");
    act(() =>
      received(
        scene({ scene: "scene/2", says: "Ada's channel opens.", warns: ["Kick loses self"] }),
      ),
    );
  });

  it("is pressed by Space, G or the key itself, and names the scene that was seen as next", () => {
    expect(board("Now")).toContain("1Overture");
    expect(board("Next")).toContain("2MarketAda comes onAda's channel opens.Kick loses self");
    key(" ");
    key("g");
    fireEvent.click(go());
    expect(asks()).toEqual(Array(3).fill({ action: "go", scene: "scene/2", sources: false }));
    expect(watched).toHaveBeenCalledWith({ scene: "scene/2" });
  });

  it("happens once while a key is held, and not while somebody types or with Control", () => {
    key("g", window, { repeat: true });
    key("g", window, { ctrlKey: true });
    key(" ", screen.getByLabelText("Recall a scene by its number"));
    expect(done).not.toHaveBeenCalled();
  });

  it("is pressed by Space also when the hand came by a link, but not through another key", () => {
    const link = document.body.appendChild(document.createElement("a"));
    link.href = "/run";
    key(" ", link);
    expect(asks()).toEqual([{ action: "go", scene: "scene/2", sources: false }]);
    key(" ", screen.getByRole("button", { name: /rehearse/ }));
    expect(asks()).toHaveLength(1);
    link.remove();
  });

  it("takes two presses where it changes what channels are fed by", () => {
    act(() => received(scene({ scene: "scene/2", sources: 2 })));
    fireEvent.click(go());
    expect(done).not.toHaveBeenCalled();
    expect(go().textContent).toContain("changes 2 sources: press again");
    fireEvent.click(go());
    expect(asks()).toEqual([{ action: "go", scene: "scene/2", sources: true }]);
  });

  it("cannot be pressed for a recall that is refused, or where nothing follows", () => {
    act(() => received(scene({ scene: "scene/2", refused: "A loop.", says: "A loop." })));
    expect(go()).toHaveProperty("disabled", true);
    moved({ "run/now": "scene/4", "run/next": null });
    expect(board("Next")).toContain("No scene follows");
    key(" ");
    expect(done).not.toHaveBeenCalled();
  });

  it("asks anew for two presses when another scene has become next", () => {
    act(() => received(scene({ scene: "scene/2", sources: 2 })));
    fireEvent.click(go());
    moved({ "run/next": "scene/4" });
    act(() => received(scene({ scene: "scene/4", sources: 1 })));
    fireEvent.click(go());
    expect(done).not.toHaveBeenCalled();
  });
});

describe("what is next", () => {
  beforeEach(() => void draw("/run"));

  it("is stepped by arrows and keys, from end to end", () => {
    key("ArrowDown");
    press("after");
    press("Look at the one before");
    expect(asks().map(movesOf)).toEqual(
      ["scene/3", "scene/3", "scene/1"].map((scene) => ({ "run/next": scene })),
    );
    moved({ "run/next": "scene/1" });
    expect(screen.getByRole("button", { name: "Look at the one before" })).toHaveProperty(
      "disabled",
      true,
    );
    done.mockClear();
    key("ArrowUp");
    expect(done).not.toHaveBeenCalled();
  });

  it("goes back to what was on by recalling the one before it", () => {
    moved({ "run/now": "scene/3" });
    press("Recall the one before");
    expect(asks()).toEqual([{ action: "recall_scene", scene: "scene/2" }]);
  });

  it("is recalled by its number, with a comma too, and an unknown one is said", () => {
    const field = screen.getByLabelText("Recall a scene by its number");
    fireEvent.change(field, { target: { value: "3,0" } });
    press("Recall");
    expect(asks()).toEqual([{ action: "recall_scene", scene: "scene/3" }]);
    fireEvent.change(field, { target: { value: "12" } });
    press("Recall");
    expect(store.getState().notices.at(-1)).toMatchObject({
      text: "There is no scene 12.",
      tone: "refused",
    });
    expect(field).toHaveProperty("value", "12");
  });
});

it("rehearses without asking anything of the show, past those that go passes by", () => {
  draw("/run");
  press("rehearse, without sounding anything");
  for (let turn = 0; turn < 2; turn++) key(" ");
  expect(board("Rehearsed")).toContain("4Farewell"); // 3 is passed by
  expect(board("Next")).toContain("No scene follows");
  press("Recall the one before");
  expect(done).not.toHaveBeenCalled();
  press("rehearse, without sounding anything");
  expect(board("Now")).toContain("1Overture");
});

it("begins with the first scene that is not passed by", () => {
  pretend({ ...sceneValues("1 A", "2 B") }, sceneList([1, 2], [1]));
  draw("/run");
  expect(board("Now")).toContain("No scene was recalled");
  key(" ");
  expect(asks()).toEqual([{ action: "go", scene: "scene/2", sources: false }]);
});

it("has DCAs and mute groups in hand, says what is safe, and who is silent and why", () => {
  draw("/run");
  const beside = within(screen.getByRole("complementary", { name: "Beside the run" }));
  fireEvent.click(beside.getByRole("button", { name: "Mute Band" }));
  fireEvent.click(beside.getByRole("button", { name: /^Ears/ }));
  expect(asks().map(movesOf)).toEqual([{ "dca/1/mute": "on" }, { "mute_group/2/on": true }]);
  expect(beside.getByRole("button", { name: /^All inputs locked/ })).toHaveProperty(
    "disabled",
    true,
  );
  const silent = () =>
    within(screen.getByRole("region", { name: "Silent" }))
      .queryAllByRole("listitem")
      .map((row) => row.textContent);
  expect(silent()).toEqual([]); // not told yet
  const source = (number: number, name: string, says: string) => ({
    source: `channel/${number}`,
    name,
    listener: "house",
    says,
    together: says,
  });
  const sources = [
    source(1, "Fiddle", "The DCA Band is muted."),
    source(2, "Kick", "The DCA Band is muted."),
    source(3, "Harp", "Harp is muted by its own key."),
  ];
  act(() => received({ type: "silent", count: 9, sources }));
  expect(silent()).toEqual([
    "The DCA Band is muted.2 Fiddle, Kick",
    "Harp is muted by its own key.",
    "and 6 more",
  ]);
  act(() => received({ type: "silent", count: 0, sources: [] }));
  expect(beside.getByText("Everybody who goes to the house is heard there.")).toBeTruthy();
});

it("has faders, mutes and lifts under the hand before there is a scene, and leads there", () => {
  const evening = Object.entries(VALUES).filter(([at]) => !/^(scene|run)/.test(at));
  pretend({ ...Object.fromEntries(evening), "lift/1/name": "Voices", "lift/1/lead": "group/2" });
  draw("/run");
  expect(screen.getByRole("link", { name: /Store the first one/ })).toBeTruthy();
  expect(screen.getByRole("slider", { name: "Fader of House" })).toBeTruthy();
  fireEvent.keyDown(screen.getByRole("slider", { name: "Fader of Band" }), { key: "ArrowLeft" });
  act(() =>
    received({
      type: "lifts",
      lifts: [
        {
          lift: "lift/1",
          vain: "",
          named: "",
          singers: [{ strip: "channel/1", lifted: false, trim_db: null, says: "", steps: [] }],
        },
      ],
    }),
  );
  press("Lift Fiddle");
  expect(asks().map((ask) => ask.action)).toEqual(["moves", "lift"]);
  expect(watched).toHaveBeenCalledWith({ silent: true });
});

it("says what to make where there is nothing in hand yet", () => {
  pretend({});
  draw("/run");
  for (const place of ["dcas", "mutes", "lifts"])
    expect(document.querySelector(`a[href$="/${place}"]`)).toBeTruthy();
});
