import { useLevel, useLink, useOn, useShow } from "../../data/use";
import { hertzText } from "../../data/words";
import { Button } from "../../ui/Button";
import { Waiting } from "../../ui/Waiting";
import {
  across,
  FrequencyGrid,
  HEIGHT,
  lineOf,
  useGridWidth,
  viewBoxOf,
  Within,
} from "./FrequencyGrid";
import { ValueField } from "./ValueField";

const OF = "house and mono";

/** The crossover that house and mono have in common: both sides, and what they come to together. */
export function CrossoverPanel({ strip }: { strip: string }) {
  const link = useLink();
  const crossover = useShow((state) =>
    state.curves?.strip === strip ? state.curves.crossover : null,
  );
  const frequencies = useShow((state) => state.curves?.frequencies_hz);
  const on = useOn("mono/crossover/on");
  const meeting = useLevel("mono/crossover/frequency") ?? 90;
  const width = useGridWidth();
  if (!crossover || !frequencies) return <Waiting />;
  const sides = [
    ["house", crossover.house_db],
    ["mono", crossover.mono_db],
  ] as const;
  const at = across(meeting) * width;
  return (
    <div className="flex flex-col gap-2" data-crossover={on}>
      <svg
        viewBox={viewBoxOf(width)}
        className="w-full max-h-[34vh] min-h-40"
        role="img"
        aria-label={`House above and mono below ${hertzText(meeting)}. ${crossover.says}`}
      >
        <FrequencyGrid width={width} />
        <line
          x1={at}
          x2={at}
          y1={0}
          y2={HEIGHT}
          stroke="var(--sun)"
          strokeWidth={1.6}
          strokeDasharray="5 3"
        />
        <Within width={width}>
          {sides.map(([side, db]) => (
            <path
              key={side}
              d={lineOf(frequencies, db, width)}
              fill="none"
              stroke={side === strip && on ? "var(--sea)" : "var(--iris)"}
              strokeWidth={side === strip ? 2.6 : 1.6}
              strokeDasharray={side === strip ? undefined : "4 3"}
            />
          ))}
          <path
            d={lineOf(frequencies, crossover.sum_db, width)}
            fill="none"
            stroke="var(--paper)"
            strokeWidth={1.6}
            opacity={on ? 0.9 : 0.4}
          />
        </Within>
        <text x={at - 12} y={18} textAnchor="end" fontSize={13} fill="var(--soft)">
          mono
        </text>
        <text x={at + 12} y={18} fontSize={13} fill="var(--soft)">
          house
        </text>
      </svg>
      <div className="flex items-center gap-x-5 gap-y-1 flex-wrap">
        {["on", "frequency", "kind"].map((leaf) => (
          <ValueField key={leaf} address={`mono/crossover/${leaf}`} of={OF} />
        ))}
      </div>
      <p className="flex items-center gap-3 flex-wrap">
        <span data-testid="crossover">{crossover.says}</span>
        {crossover.turning.length > 0 && (
          <Button
            small
            onClick={() =>
              void link.do(
                { action: "moves", moves: crossover.turning, says: "Mono inverted" },
                { quiet: false },
              )
            }
          >
            Turn mono over
          </Button>
        )}
      </p>
      <p className="text-faint text-[13px]">
        The white line is what feeds house and mono alike, before loudspeakers and room.
      </p>
    </div>
  );
}
