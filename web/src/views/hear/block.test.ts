import { expect, it } from "vitest";
import { block, inBlock, stepped } from "./block";

it("covers the cells between two places whichever way they were dragged", () => {
  const area = block({ row: 5, column: 1 }, { row: 2, column: 3 });
  expect(area).toEqual({ top: 2, bottom: 5, left: 1, right: 3 });
  expect(inBlock(area, 2, 3)).toBe(true);
  expect(inBlock(area, 6, 2)).toBe(false);
});

it("keeps the cursor within the grid and leaves other keys alone", () => {
  const at = { row: 0, column: 0 };
  expect(stepped(at, "ArrowUp", 3, 3)).toEqual(at);
  expect(stepped(at, "End", 3, 3)).toEqual({ row: 0, column: 2 });
  expect(stepped(at, "PageDown", 3, 3)).toEqual({ row: 2, column: 0 });
  expect(stepped(at, "x", 3, 3)).toBeNull();
  expect(stepped(at, "ArrowDown", 0, 0)).toBeNull();
});
