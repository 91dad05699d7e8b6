import { expect, it } from "vitest";
import { namesIn } from "./names";

it.each([
  ['Ada, "Bo, junior"; Cy\nDi\tEl', ["Ada", "Bo, junior", "Cy", "Di", "El"]],
  ["“Bo, junior”,, ", ["Bo, junior"]],
  ['6" tom, Kick', ['6" tom', "Kick"]],
  ["", []],
])("reads names from %j", (text, names) => {
  expect(namesIn(text)).toEqual(names);
});
