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

export function block(one: Place, other: Place): Block {
  return {
    top: Math.min(one.row, other.row),
    bottom: Math.max(one.row, other.row),
    left: Math.min(one.column, other.column),
    right: Math.max(one.column, other.column),
  };
}

export const inBlock = (area: Block, row: number, column: number): boolean =>
  row >= area.top && row <= area.bottom && column >= area.left && column <= area.right;

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
  return {
    row: Math.min(rows - 1, Math.max(0, from.row + step[0])),
    column: Math.min(columns - 1, Math.max(0, from.column + step[1])),
  };
}
