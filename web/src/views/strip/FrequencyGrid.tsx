import type { ReactNode } from "react";
import { levelText } from "../../data/words";
import { usePhone } from "../../ui/media";

const WIDE = 600;
const NARROW = 380; // on a phone, or beside values: fewer units, so that figures stay large
export const HEIGHT = 300;
export const LOW_HZ = 20;
export const HIGH_HZ = 20_000;
const MOST_DB = 18;
const TICKS = [20, 50, 100, 200, 500, 1000, 2000, 5000, 10_000, 20_000];
const LEVELS = [18, 12, 6, 0, -6, -12, -18];

export const across = (hertz: number) => Math.log(hertz / LOW_HZ) / Math.log(HIGH_HZ / LOW_HZ);
export const y = (db: number) =>
  ((MOST_DB - Math.max(-MOST_DB, Math.min(MOST_DB, db))) / (2 * MOST_DB)) * HEIGHT;

const beyond = (db: number) => ((MOST_DB - db) / (2 * MOST_DB)) * HEIGHT;

/** A curve through its points; it goes on beyond the grid, where `Within` cuts it off. */
export const lineOf = (frequencies: readonly number[], db: readonly number[], width: number) =>
  frequencies
    .map((hertz, at) => {
      const x = (across(hertz) * width).toFixed(2);
      return `${at ? "L" : "M"}${x} ${beyond(db[at] ?? 0).toFixed(2)}`;
    })
    .join("");

/** What is drawn inside the grid alone. */
export function Within({ width, children }: { width: number; children: ReactNode }) {
  return (
    <svg x={0} y={0} width={width} height={HEIGHT} aria-hidden="true">
      {children}
    </svg>
  );
}

/** How wide a curve is drawn here, in units of its picture. */
export const useGridWidth = (narrow = false): number => (usePhone() || narrow ? NARROW : WIDE);

export const viewBoxOf = (width: number): string => `-34 -8 ${width + 48} ${HEIGHT + 30}`;

/** Lines at levels and frequencies, under every curve over frequency. */
export function FrequencyGrid({ width }: { width: number }) {
  const x = (hertz: number) => across(hertz) * width;
  return (
    <>
      {LEVELS.map((db) => (
        <g key={db}>
          <line
            x1={0}
            x2={width}
            y1={y(db)}
            y2={y(db)}
            stroke="var(--line)"
            strokeWidth={db === 0 ? 1.6 : 0.7}
          />
          <text x={-6} y={y(db) + 4} textAnchor="end" fontSize={12} fill="var(--faint)">
            {levelText(db, 0)}
          </text>
        </g>
      ))}
      {TICKS.map((hertz) => (
        <g key={hertz}>
          <line
            x1={x(hertz)}
            x2={x(hertz)}
            y1={0}
            y2={HEIGHT}
            stroke="var(--line)"
            strokeWidth={0.7}
          />
          <text x={x(hertz)} y={HEIGHT + 17} textAnchor="middle" fontSize={12} fill="var(--faint)">
            {hertz >= 1000 ? `${hertz / 1000}k` : hertz}
          </text>
        </g>
      ))}
    </>
  );
}
