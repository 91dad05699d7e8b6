/** A number on its way: the core's plan as points, by this screen's own clock. */

export interface Fade {
  /** When it set out, by `performance.now`. */
  begun: number;
  /** (ms from then, value); null is silence. The core has put as many as a line between two needs. */
  points: readonly (readonly [number, number | null])[];
}

/** Where a plan has it at a time; undefined once it is there. */
export function pointAt(fade: Fade, now: number): number | null | undefined {
  const ms = now - fade.begun;
  const next = fade.points.findIndex(([at]) => at > ms);
  if (next < 0) return undefined;
  return fade.points[Math.max(0, next - 1)]![1];
}
