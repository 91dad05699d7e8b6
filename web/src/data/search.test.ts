import { expect, it } from "vitest";
import { hasPhrase, hasWords } from "./search";

it.each([
  ["cajon", "Cajón / channel 4 A 4"],
  ["CAJÓN", "cajon"],
  ["a14", "Kora / channel 20 A 14"],
  ["A 14", "Kora A14"],
  ["channel 4 cajon", "Cajón channel 4"],
  ["kick 2", "Kick in 2"],
  ["zbigniew lodz", "Zbigniew / Łódź"],
  ["muller", "Müller"],
  ["strasse", "Straße"],
  ["ⅳ", "IV"],
])("finds %s in %s", (typed, text) => {
  expect(hasWords(typed)(text)).toBe(true);
});

it.each([
  ["b 2", "B 2", true],
  ["b2", "B 2 / Fiddle", true],
  ["b 2", "2 b", false],
  ["a14", "A 1 / 4", false],
  ["", "whatever", true],
])("takes %s as it stands: in %s %s", (typed, text, found) => {
  expect(hasPhrase(typed)(text)).toBe(found);
});
