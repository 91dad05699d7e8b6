/** The last minute of a group as bands that fill one width: numbers for drawing alone. */

const TONES = ["sky", "amber", "sea", "rose", "iris", "moss", "coral", "sand", "slate"] as const;

/** The colour of a member by its place: neighbours differ, whatever their strips wear. */
export const bandColour = (place: number): string => `var(--strip-${TONES[place % TONES.length]!})`;

/**
 * The outline of each member's band, as an SVG path in a box of `slots` by 1: each part of the minute is
 * filled whole, by shares of its sum; a part in which nobody shared is left out.
 */
export function bandPaths(
  strips: readonly string[],
  minute: readonly Readonly<Record<string, number>>[],
  slots: number,
): string[] {
  const paths = strips.map(() => "");
  minute.forEach((shares, at) => {
    const sum = strips.reduce((total, strip) => total + (shares[strip] ?? 0), 0);
    if (sum <= 0) return;
    const x = slots - minute.length + at;
    let from = 0;
    strips.forEach((strip, place) => {
      const to = from + (shares[strip] ?? 0) / sum;
      if (to > from) paths[place] += `M${x} ${from.toFixed(4)}h1V${to.toFixed(4)}h-1Z`;
      from = to;
    });
  });
  return paths;
}
