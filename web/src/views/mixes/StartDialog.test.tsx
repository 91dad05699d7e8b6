import { fireEvent, screen, waitFor } from "@testing-library/react";
import { beforeEach, expect, it } from "vitest";
import { preview } from "../../testing/messages";
import { asks, choose, draw, press, pretend, tried } from "../../testing/pretend";

const VALUES = {
  "mix/1/name": "Ears",
  "mix/1/format": "stereo",
  "mix/2/name": "Wedge",
  "mix/2/format": "mono",
};
const type = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

beforeEach(() => {
  tried.mockImplementation(() =>
    Promise.resolve(preview({ changes: 3, told: ["Cut at +6: Vox."] })),
  );
  pretend(VALUES);
  draw("/mixes/1");
  press("Start…");
});

it("starts mixes from a base by a recipe, told beforehand with what cannot be", async () => {
  type("Mixes to start", "mix 1-2");
  type("Recipe", "self +6");
  await waitFor(() => expect(screen.getByText("Cut at +6: Vox.")).toBeTruthy());
  choose("Start from", "one level");
  type("Level of all in dB", "-9");
  fireEvent.click(screen.getByLabelText("with pans"));
  press("Start them");
  await waitFor(() => expect(asks()).toHaveLength(1));
  expect(asks()[0]).toEqual({
    action: "start_mixes",
    mixes: "mix 1-2",
    base: "-9",
    recipe: "self +6",
    dcas: true,
    pans: false,
  });
});

it("takes a recipe of a role, and makes boosts beside the mixes", async () => {
  choose("Recipe of a role", "singer");
  expect(screen.getByLabelText<HTMLInputElement>("Recipe").value).toContain("self +6");
  press("Boost of self beside them");
  await waitFor(() => expect(asks()).toEqual([{ action: "boost_selves", mixes: "mix 1" }]));
});
