import { readFileSync } from "node:fs";
import { expect, it } from "vitest";

// Deuteranopia of full severity, on linear sRGB: Machado, Oliveira and Fernandes, "A Physiologically
// based Model for Simulation of Color Vision Deficiency", 2009, table 1 (values from memory).
const DEUTERANOPE = [
  [0.367322, 0.860646, -0.227968],
  [0.280085, 0.672501, 0.047413],
  [-0.01182, 0.04294, 0.968881],
] as const;
const TOLD_APART = 8; // hundredths of OKLab: common practice takes 2 for what is just noticed side by side

type Three = readonly [number, number, number];

const linear = (part: number) => (part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4);
const read = (hex: string) =>
  [1, 3, 5].map((at) =>
    linear(Number.parseInt(hex.slice(at, at + 2), 16) / 255),
  ) as unknown as Three;
const times = (matrix: readonly Three[], by: Three) =>
  matrix.map((row) => row.reduce((sum, one, at) => sum + one * by[at]!, 0)) as unknown as Three;
const within = (colour: Three) =>
  colour.map((c) => Math.min(1, Math.max(0, c))) as unknown as Three;

/** OKLab of linear sRGB: B. Ottosson, "A perceptual color space for image processing", 2020. */
function oklab(colour: Three): Three {
  const lms = times(
    [
      [0.4122214708, 0.5363325363, 0.0514459929],
      [0.2119034982, 0.6806995451, 0.1073969566],
      [0.0883024619, 0.2817188376, 0.6299787005],
    ],
    colour,
  ).map(Math.cbrt) as unknown as Three;
  return times(
    [
      [0.2104542553, 0.793617785, -0.0040720468],
      [1.9779984951, -2.428592205, 0.4505937099],
      [0.0259040371, 0.7827717662, -0.808675766],
    ],
    lms,
  );
}

const apart = (one: Three, other: Three) =>
  100 * Math.hypot(...oklab(one).map((part, at) => part - oklab(other)[at]!));

const tokens = readFileSync("src/tokens.css", "utf8");
const themes = tokens.split('[data-theme="daylight"]');

it.each([
  ["strips by dusk", themes[0]!, "strip"],
  ["marks", themes[0]!, "mark"],
  ["strips by day", themes[1]!, "strip"],
])("%s are told apart by everybody, deuteranopes too", (_, theme, kind) => {
  const found = [...theme.matchAll(new RegExp(`--${kind}-(\\w+): (#\\w{6})`, "g"))];
  expect(found.map(([, name]) => name)).toHaveLength(9);
  const near: string[] = [];
  for (const [at, [, name, hex]] of found.entries())
    for (const [, other, to] of found.slice(at + 1)) {
      const [a, b] = [read(hex!), read(to!)];
      const seen = apart(within(times(DEUTERANOPE, a)), within(times(DEUTERANOPE, b)));
      if (Math.min(seen, apart(a, b)) < TOLD_APART)
        near.push(`${name} and ${other}: ${seen.toFixed(1)}`);
    }
  expect(near).toEqual([]);
});
