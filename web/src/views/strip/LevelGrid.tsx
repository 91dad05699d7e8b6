import { levelText } from "../../data/words";

export const SIZE = 260;
const FLOOR = -80;
const TICKS = [-80, -60, -40, -20, 0];
export const VIEW_BOX = `-30 -6 ${SIZE + 40} ${SIZE + 28}`;

export const at = (db: number) => ((Math.max(FLOOR, Math.min(0, db)) - FLOOR) / -FLOOR) * SIZE;

/** A static curve: levels out over levels in. */
export const outLine = (levels: readonly number[], out: readonly number[]) =>
  levels
    .map(
      (db, place) =>
        `${place ? "L" : "M"}${at(db).toFixed(1)} ${(SIZE - at(out[place] ?? FLOOR)).toFixed(1)}`,
    )
    .join("");

/** Lines at levels in and out, under every static curve; and the one on which nothing happens. */
export function LevelGrid() {
  return (
    <>
      {TICKS.map((db) => (
        <g key={db}>
          <line x1={at(db)} x2={at(db)} y1={0} y2={SIZE} stroke="var(--line)" strokeWidth={0.7} />
          <line
            x1={0}
            x2={SIZE}
            y1={SIZE - at(db)}
            y2={SIZE - at(db)}
            stroke="var(--line)"
            strokeWidth={0.7}
          />
          <text x={at(db)} y={SIZE + 16} textAnchor="middle" fontSize={11} fill="var(--faint)">
            {levelText(db, 0)}
          </text>
          <text x={-5} y={SIZE - at(db) + 4} textAnchor="end" fontSize={11} fill="var(--faint)">
            {levelText(db, 0)}
          </text>
        </g>
      ))}
      <line x1={0} y1={SIZE} x2={SIZE} y2={0} stroke="var(--edge)" strokeDasharray="3 4" />
    </>
  );
}
