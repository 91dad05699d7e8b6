import { levelText } from "../../data/words";

export const SIZE = 260;
const FLOOR = -80;
const TICKS = [-80, -60, -40, -20, 0];
export const VIEW_BOX = `-30 -6 ${SIZE + 40} ${SIZE + 28}`;

export const at = (db: number) => ((Math.max(FLOOR, Math.min(0, db)) - FLOOR) / -FLOOR) * SIZE;

const beyond = (db: number) => ((db - FLOOR) / -FLOOR) * SIZE;

/** A static curve: levels out over levels in, cut off where the grid ends. */
export function OutLine({
  points,
  stroke,
  dashed = false,
}: {
  points: readonly (readonly [number, number])[];
  stroke: string;
  dashed?: boolean;
}) {
  const d = points
    .map(
      ([into, out], place) =>
        `${place ? "L" : "M"}${beyond(into).toFixed(2)} ${(SIZE - beyond(out)).toFixed(2)}`,
    )
    .join("");
  return (
    <svg x={0} y={0} width={SIZE} height={SIZE} aria-hidden="true">
      <path
        d={d}
        fill="none"
        stroke={stroke}
        strokeWidth={dashed ? 2.2 : 2.6}
        strokeDasharray={dashed ? "6 4" : undefined}
      />
    </svg>
  );
}

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
