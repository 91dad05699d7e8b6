/** A block of cells between two places, and where a key takes the cursor. Pure, for drawing. */
export interface Place {
  row: number;
  column: number;
}

export interface Block {
  top: number;
  bottom: number;
  left: number;
  right: number;
}

/** A place kept within a grid of so many rows and columns. */
export const within = ({ row, column }: Place, rows: number, columns: number): Place => ({
  row: Math.max(0, Math.min(row, rows - 1)),
  column: Math.max(0, Math.min(column, columns - 1)),
});

export function block(one: Place, other: Place): Block {
  return {
    top: Math.min(one.row, other.row),
    bottom: Math.max(one.row, other.row),
    left: Math.min(one.column, other.column),
    right: Math.max(one.column, other.column),
  };
}

/** A row or column that is taken whole, by its head or by key. */
export type Whole = "row" | "column" | null;

export interface Taken {
  top: number;
  bottom: number;
  columns: readonly number[];
  set: ReadonlySet<number>;
}

/**
 * What is taken of a grid: the block, the whole rows or the whole columns that it touches. Whole rows
 * take the columns `ofRows`, or all where there are none of these.
 */
export function takenIn(
  area: Block,
  whole: Whole,
  rows: number,
  columns: number,
  ofRows: readonly number[],
): Taken {
  const all = (low: number, high: number) =>
    Array.from({ length: Math.max(0, high - low + 1) }, (_, step) => low + step);
  const across =
    whole === "row"
      ? ofRows.length > 0
        ? ofRows
        : all(0, columns - 1)
      : all(area.left, Math.min(area.right, columns - 1));
  const top = whole === "column" ? 0 : Math.min(area.top, rows - 1);
  const bottom = whole === "column" ? rows - 1 : Math.min(area.bottom, rows - 1);
  return { top, bottom, columns: across, set: new Set(across) };
}

const KEYS: Record<string, readonly [rows: number, columns: number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  PageUp: [-10, 0],
  PageDown: [10, 0],
  Home: [0, -Infinity],
  End: [0, Infinity],
};

/** The place that a key leads to, kept within the grid; null for a key that does not move. */
export function stepped(from: Place, key: string, rows: number, columns: number): Place | null {
  const step = KEYS[key];
  if (!step || rows === 0 || columns === 0) return null;
  return within({ row: from.row + step[0], column: from.column + step[1] }, rows, columns);
}
