import { expect, it } from "vitest";
import { block, stepped, takenIn } from "./block";

it("covers the cells between two places whichever way they were dragged", () => {
  const area = block({ row: 5, column: 1 }, { row: 2, column: 3 });
  expect(area).toEqual({ top: 2, bottom: 5, left: 1, right: 3 });
  expect(takenIn(area, null, 9, 9, [])).toMatchObject({ top: 2, bottom: 5, columns: [1, 2, 3] });
  expect(takenIn(area, null, 4, 2, [])).toMatchObject({ top: 2, bottom: 3, columns: [1] }); // the grid shrank
});

it("keeps the cursor within the grid and leaves other keys alone", () => {
  const at = { row: 0, column: 0 };
  expect(stepped(at, "ArrowUp", 3, 3)).toEqual(at);
  expect(stepped(at, "End", 3, 3)).toEqual({ row: 0, column: 2 });
  expect(stepped(at, "PageDown", 3, 3)).toEqual({ row: 2, column: 0 });
  expect(stepped(at, "x", 3, 3)).toBeNull();
  expect(stepped(at, "ArrowDown", 0, 0)).toBeNull();
});

it("takes whole rows with the columns that rows have, and whole columns with every row", () => {
  const area = block({ row: 1, column: 2 }, { row: 2, column: 2 });
  expect(takenIn(area, "row", 9, 4, [1, 3])).toMatchObject({ top: 1, bottom: 2, columns: [1, 3] });
  expect(takenIn(area, "row", 9, 4, [])).toMatchObject({ columns: [0, 1, 2, 3] });
  expect(takenIn(area, "column", 9, 4, [1, 3])).toMatchObject({ top: 0, bottom: 8, columns: [2] });
});
