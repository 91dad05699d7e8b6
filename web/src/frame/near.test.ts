import { expect, it } from "vitest";
import { isNear } from "./near";

it("finds what was meant by one slip, and nothing by two", () => {
  for (const typed of ["trumpet", "trumpt", "trumpeet", "trunpet", "turmpet", "trum", "tromb"])
    expect(isNear(typed, "trumpet 23 trombone"), typed).toBe(true);
  for (const typed of ["trrumpeet", "kick", "xyz", "tub"])
    expect(isNear(typed, "trumpet 23 trombone"), typed).toBe(false);
});

it("takes short words as they are: they are too easily somebody else's", () => {
  expect(isNear("kik", "kick 9")).toBe(false);
  expect(isNear("ki", "kick 9")).toBe(true);
});
