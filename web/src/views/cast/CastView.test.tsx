import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, describe, expect, it } from "vitest";
import { received } from "../../data/show";
import type { Company, CompanyPart } from "../../data/types";
import { preview } from "../../testing/messages";
import {
  asks,
  choose,
  done,
  draw,
  movesOf,
  press,
  pretend,
  tried,
  type,
} from "../../testing/pretend";

const ADA = { performer: "performer/1", name: "Ada" };
const BO = { performer: "performer/2", name: "Bo" };
const CLEO = { performer: "performer/3", name: "Cleo" };
const GULL: CompanyPart = {
  part: "part/1",
  name: "Gull",
  microphones: [{ number: 1, channel: "channel/3", channel_name: "Head 3", name: "" }],
  mix: "mix/1",
  mix_name: "Ears Gull",
  players: [
    { ...ADA, kept: true },
    { ...BO, kept: false },
  ],
  plays: [ADA, BO],
  tonight: ADA,
  late: false,
};
const COMPANY: Company = {
  type: "company",
  casts: [
    { cast: "cast/1", name: "First" },
    { cast: "cast/2", name: "Second" },
  ],
  performers: [ADA, BO, CLEO],
  tonight: "cast/1",
  parts: [
    GULL,
    {
      ...GULL,
      part: "part/2",
      name: "Sexton",
      microphones: [],
      tonight: null,
      late: true,
      mix_name: "",
    },
  ],
} as Company;
const tell = (more: Partial<Company> = {}) => act(() => received({ ...COMPANY, ...more }));
const options = () => screen.getAllByRole("option").map((one) => one.textContent);

beforeEach(() => {
  tried.mockImplementation(() => Promise.resolve(preview()));
  pretend({ "mix/1/format": "stereo", "mix/1/name": "Ears Gull" });
  draw("/cast");
});

describe("parts", () => {
  it("say where they come in, who plays them in each cast, and what is not kept yet", () => {
    tell();
    const cells = [...document.querySelectorAll('[data-part="part/1"] td')].map(
      (one) => one.textContent,
    );
    expect(cells[1]).toContain("Head 3hearsEars Gull");
    expect(screen.getByLabelText("Channels of Gull")).toHaveProperty("value", "3");
    expect(cells[5]).toContain("nothing kept yet: Bo");
    expect(screen.getByLabelText("Who can play Gull")).toHaveProperty("value", "Ada, Bo");
    const sexton = document.querySelector('[data-part="part/2"]')!.textContent;
    expect(screen.getByLabelText("Channels of Sexton")).toHaveProperty("placeholder", "no channel");
    expect(sexton).toContain("late");
  });

  it("are renamed, given players and cast by name; whoever is another part's is said so", () => {
    tell();
    type("Name of Gull", "Great gull");
    type("Who can play Gull", "Ada, Cleo");
    fireEvent.keyDown(screen.getByRole("combobox", { name: "Second, Gull" }), { key: "Enter" });
    expect(options()).toEqual(["vacant", "Ada", "Bo✓", "Cleo (another part's)"]);
    fireEvent.keyDown(screen.getByRole("option", { name: "vacant" }), { key: "Enter" });
    expect(asks()[1]).toEqual({ action: "set_players", part: "part/1", players: "Ada, Cleo" });
    expect([asks()[0]!, asks()[2]!].map(movesOf)).toEqual([
      { "part/1/name": "Great gull" },
      { "cast/2/part/1": null },
    ]);
  });

  it("are made in one line, which stays where it is refused", async () => {
    tell({ parts: [] });
    expect(screen.getByText("No part yet")).toBeTruthy();
    const fill = (label: string, value: string) =>
      fireEvent.change(screen.getByLabelText(label), { target: { value } });
    fill("Name of the new part", "Gull");
    fill("Channels of the new part", "3");
    fill("Who plays the new part", "Ada, Bo");
    done.mockImplementationOnce(() => Promise.resolve(false));
    press("Add part");
    await act(() => Promise.resolve());
    expect(screen.getByLabelText("Who plays the new part")).toHaveProperty("value", "Ada, Bo");
    press("Add part");
    await waitFor(() =>
      expect(screen.getByLabelText("Name of the new part")).toHaveProperty("value", ""),
    );
    const ask = { action: "add_part", name: "Gull", channels: "3", players: "Ada, Bo" };
    expect(asks()).toEqual([ask, ask]);
  });

  it("and casts are removed by two presses", () => {
    tell();
    press("Remove Gull, ✕");
    press(/Press again: Remove Gull/);
    press("Remove Second, Remove last");
    press(/Press again: Remove Second/);
    expect(asks()).toEqual([
      { action: "remove_part", part: "part/1" },
      { action: "remove_cast", cast: "cast/2" },
    ]);
  });
});

describe("tonight", () => {
  it("is looked at before it is taken: who comes on, who is vacant, what pins hold", async () => {
    const company = {
      on: [{ channel: "channel/3", name: "Head 3", was: "Ada", now: "Bo" }],
      vacant: ["Sexton"],
      felt: ["A 3 gain 31 dB → 0 dB", "nothing is kept yet for Bo as Gull"],
      pinned: [["Gull", "who is on"]],
      left: [["Head 9", "one of a pair"]],
    } as never;
    tried.mockImplementation(() =>
      Promise.resolve(preview({ company, silenced: [["Ada", "House"]], moved: 3 })),
    );
    tell();
    choose("Tonight's cast", "Tonight: Second");
    const shown = within(await screen.findByTestId("cast-preview"));
    await shown.findByText("Ada", { exact: false });
    const words = shown.getByRole("region", { name: "Who" }).textContent;
    expect(words).toBe(
      "Head 3Ada → BoNobody plays Sexton: own settings show.Gull stays as it is: pinned (who is on)." +
        "Head 9 takes no fitting: one of a pair.1 level falls silent" +
        "A 3 gain 31 dB → 0 dBnothing is kept yet for Bo as Gull3 levels move.",
    );
    expect(done).not.toHaveBeenCalled();
    press("Take it");
    expect(asks()).toEqual([{ action: "choose_cast", cast: "cast/2" }]);
    await waitFor(() => expect(screen.queryByTestId("cast-preview")).toBeNull());
  });

  it("has late changes, told, looked at first, and taken back by choosing the cast again", async () => {
    tell();
    expect(screen.getByText("1 late change")).toBeTruthy();
    choose("Tonight, Gull", "Cleo (another part's)");
    await waitFor(() =>
      expect(tried.mock.calls.at(-1)![0]).toEqual({
        action: "late_change",
        part: "part/1",
        performer: "performer/3",
      }),
    );
    fireEvent.keyDown(window, { key: "Escape" });
    expect(screen.queryByTestId("cast-preview")).toBeNull();
    press("All fittings on");
    fireEvent.keyDown(window, { key: "Enter", ctrlKey: true });
    await waitFor(() => expect(asks()).toEqual([{ action: "choose_cast", cast: "cast/1" }]));
  });

  it("says why a choice cannot be made", async () => {
    tried.mockImplementation(() => Promise.resolve("Head 3 is one of a pair."));
    tell({ tonight: null });
    choose("Tonight's cast", "Tonight: First");
    expect((await screen.findByRole("alert")).textContent).toBe("Head 3 is one of a pair.");
  });
});
