import { useEffect, useState } from "react";
import { numberOf } from "../../data/address";
import { compareFittings } from "../../data/http";
import type { FittingsCompared as Compared } from "../../data/types";
import { useShow } from "../../data/use";
import { Waiting } from "../../ui/Waiting";
import { FrequencyGrid, lineOf, useGridWidth, viewBoxOf, Within } from "./FrequencyGrid";
import { LevelGrid, OutLine, VIEW_BOX } from "./LevelGrid";

const STAGES = [
  ["Gate", "gate"],
  ["Compressor", "compressor"],
] as const;

/** Two fittings: their curves over one another, their values side by side. */
export function FittingsCompared({ one, other }: { one: string; other: string }) {
  const showId = useShow((state) => state.desk?.show.id ?? "");
  const [found, setFound] = useState<Compared | null>(null);
  const [fault, setFault] = useState("");
  const width = useGridWidth();
  useEffect(() => {
    let gone = false;
    compareFittings(showId, numberOf(one), numberOf(other)).then(
      (reply) => !gone && setFound(reply),
      (error: Error) => !gone && setFault(error.message),
    );
    return () => {
      gone = true;
    };
  }, [showId, one, other]);
  if (fault)
    return (
      <p className="text-coral" role="alert">
        {fault}
      </p>
    );
  if (!found) return <Waiting />;
  const [here, there] = found.curves;
  return (
    <div className="pt-2" data-testid="fittings-compared">
      <svg
        viewBox={viewBoxOf(width)}
        className="w-full max-h-56"
        role="img"
        aria-label={`Curves of ${here?.name} and ${there?.name}`}
      >
        <FrequencyGrid width={width} />
        <Within width={width}>
          {there && (
            <path
              d={lineOf(there.frequencies_hz, there.total_db, width)}
              fill="none"
              stroke="var(--sun)"
              strokeWidth={2.2}
              strokeDasharray="6 4"
            />
          )}
          {here && (
            <path
              d={lineOf(here.frequencies_hz, here.total_db, width)}
              fill="none"
              stroke="var(--sea)"
              strokeWidth={2.6}
            />
          )}
        </Within>
      </svg>
      {here && there && (
        <div className="grid grid-cols-2 gap-3">
          {STAGES.map(([word, curve]) => (
            <Stage key={word} word={word} one={here[curve]} other={there[curve]} />
          ))}
        </div>
      )}
      <table className="w-full text-[13.5px]">
        <thead>
          <tr className="text-left">
            <th className="font-normal sr-only">value</th>
            <th className="font-normal text-sea text-right">{here?.name}</th>
            <th className="font-normal text-sun-text text-right pl-2">{there?.name}</th>
          </tr>
        </thead>
        <tbody>
          {found.sides.map((side) => (
            <tr key={side.label}>
              <td className="text-soft">{side.label}</td>
              <td className="text-right whitespace-nowrap">{side.one}</td>
              <td className="text-right whitespace-nowrap pl-2">{side.other}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {found.sides.length === 0 && <p className="text-soft">They are alike.</p>}
    </div>
  );
}

type Point = [number, number];

interface StageProps {
  word: string;
  one: readonly Point[];
  other: readonly Point[];
}

/** What comes out of a gate or compressor, where two make it otherwise. */
function Stage({ word, one, other }: StageProps) {
  if (String(one) === String(other)) return null;
  return (
    <figure>
      <svg viewBox={VIEW_BOX} className="w-full max-h-44" role="img" aria-label={`${word} of both`}>
        <LevelGrid />
        <OutLine points={other} stroke="var(--sun)" dashed />
        <OutLine points={one} stroke="var(--sea)" />
      </svg>
      <figcaption className="text-center text-soft text-[13px]">{word}</figcaption>
    </figure>
  );
}
