import { fireEvent, screen } from "@testing-library/react";
import { beforeEach, expect, it } from "vitest";
import type { ToScreen } from "../../data/types";
import { asks, draw, moved, pretend, type } from "../../testing/pretend";

const step = { listener: "house", name: "House", back_db: -6, lead_db: 0, step_db: 6 };
const told: ToScreen = {
  type: "lifts",
  lifts: [
    {
      lift: "lift/1",
      vain: "",
      named: "13",
      singers: [{ strip: "channel/13", lifted: false, trim_db: 0, steps: [step], says: "" }],
    },
  ],
};

beforeEach(() =>
  pretend(
    {
      "channel/13/name": "Oda",
      "group/1/format": "stereo",
      "group/2/format": "stereo",
      "lift/1/name": "Voices",
      "lift/1/backing": "group/1",
      "lift/1/lead": "group/2",
    },
    told,
  ),
);

it("goes on being drawn when an undo takes the lift before its singers are told anew", () => {
  draw("/lifts");
  expect(screen.getByRole("button", { name: /Oda/ })).toBeTruthy();
  moved({ "lift/1/lead": null, "lift/1/backing": null });
  expect(screen.queryByRole("button", { name: /Oda/ })).toBeNull();
  expect(screen.queryByRole("alert")).toBeNull();
  fireEvent.keyDown(document.body, { key: "1" });
  expect(asks()).toEqual([]);
  moved({ "lift/1/lead": "group/2", "lift/1/backing": "group/1" });
  expect(screen.getByRole("button", { name: /Oda/ })).toBeTruthy();
});

it("says who can be lifted, and takes another list of them", () => {
  draw("/lifts");
  type("Who can be lifted, Voices", "13-15");
  fireEvent.click(screen.getByRole("button", { name: "Remove the lift Voices" }));
  expect(asks()).toEqual([
    { action: "set_singers", lift: "lift/1", strips: "13-15" },
    { action: "remove_lift", lift: "lift/1" },
  ]);
});
