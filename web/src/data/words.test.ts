import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import { Catalogue } from "./catalogue";
import desk from "./generated/desk.json";
import type { Desk, Value } from "./types";
import { kindWord } from "./use";
import { sizeText, valueText } from "./words";

const rows = JSON.parse(readFileSync("../tests/shown.json", "utf8")) as [string, Value, string][];
const catalogue = new Catalogue(desk as unknown as Desk);

it.each(rows)("shows %s at %s as the core reads it again: %s", (address, value, text) => {
  // the core is held to the same rows (tests/core/test_parameters.py)
  expect(valueText(catalogue.at(address), value)).toBe(text);
});

it.each([
  [2.25, 1, "2.3"],
  [6.35, 1, "6.4"],
  [0.05, 1, "0.1"],
  [1e-7, 1, "0.0"],
  [0.125, 2, "0.13"],
])("rounds %s to %s places as paper does: %s", (size, digits, text) => {
  expect(sizeText(size, digits)).toBe(text); // src/ombrel/core/said.py
});

it("calls what has no name as the core does", () => {
  expect(["dca", "mute_group", "channel"].map(kindWord)).toEqual(["DCA", "Mute group", "Channel"]);
});
