/** Drawing sums for a fader. They place marks and bars; they are no gains. */
export type Mark = readonly [levelDb: number, travel: number];

/** Place of a level on the travel, 0 (off) to 1 (top), by the marks that the core sent. */
export function travelOf(levelDb: number | null, marks: readonly Mark[]): number {
  const first = marks[0];
  if (levelDb === null || !first) return 0;
  if (levelDb <= first[0]) return first[1] * 0.5;
  for (let index = 1; index < marks.length; index++) {
    const [lowDb, low] = marks[index - 1]!;
    const [highDb, high] = marks[index]!;
    if (levelDb <= highDb) return low + ((levelDb - lowDb) / (highDb - lowDb)) * (high - low);
  }
  return 1;
}

/** Place of a pointer along a box, 0 to 1. */
export function placeAlong(x: number, box: { left: number; width: number }): number {
  return Math.min(1, Math.max(0, (x - box.left) / Math.max(1, box.width)));
}
