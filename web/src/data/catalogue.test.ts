import { expect, it } from "vitest";
import { Catalogue } from "./catalogue";
import type { Desk, Parameter } from "./types";
import { cellText, levelText, panText } from "./words";

const parameter = (key: string, standard: Parameter["default"]): Parameter => ({
  key,
  label: key,
  says: "",
  aspect: "x",
  kind: "number",
  default: standard,
  unit: "dB",
  lowest: null,
  highest: 6,
  step: 0.1,
  law: "fader",
  options: [],
  longest: null,
});
const catalogue = new Catalogue({
  parameters: [
    parameter("channel/<channel>/fader", null),
    parameter("channel/<channel>/pan", 0),
    parameter("house/fader", 0),
  ],
} as unknown as Desk);

it("finds the entry of an address by its shape, and no other", () => {
  expect(catalogue.at("channel/7/fader").key).toBe("channel/<channel>/fader");
  expect(catalogue.defaultOf("channel/7/fader")).toBeNull();
  expect(catalogue.defaultOf("channel/48/pan")).toBe(0);
  expect(() => catalogue.at("channel/7/volume")).toThrow("channel/7/volume");
  expect(() => catalogue.at("channel/7/fader/more")).toThrow();
});

it("writes levels with a true minus sign, off as a word, and no sign on nothing", () => {
  expect([-6, 2, 0, -0.04, null].map((level) => levelText(level))).toEqual([
    "−6.0",
    "+2.0",
    "0.0",
    "0.0",
    "off",
  ]);
  expect(cellText(2)).toBe("2.0");
  expect([-0.3, 0, 1].map(panText)).toEqual(["L30", "C", "R100"]);
});
