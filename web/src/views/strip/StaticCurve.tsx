import { type PointerEvent, useRef } from "react";
import { isOf } from "../../data/address";
import { byHand } from "../../data/hand";
import { Gesture } from "../../data/link";
import type { Curves, Move } from "../../data/types";
import { useLevel, useLink, useShow } from "../../data/use";
import { levelText } from "../../data/words";
import { Waiting } from "../../ui/Waiting";
import { at, LevelGrid, OutLine, SIZE, VIEW_BOX } from "./LevelGrid";

/** What comes out of a gate or compressor for what goes in; the threshold is dragged across. */
export function StaticCurve({
  strip,
  stage,
  name,
}: {
  strip: string;
  stage: "gate" | "compressor";
  name: string;
}) {
  const link = useLink();
  const ofLine = isOf(strip, "channel");
  const curve: Curves["gate"] = useShow((state) =>
    state.curves?.strip === strip ? state.curves[stage] : null,
  );
  const byAnother = useShow((state) => stage === "gate" && Boolean(state.path?.keyed));
  const threshold = useLevel(`${strip}/${stage}/threshold`) ?? 0;
  const held = useRef<Gesture | null>(null);
  if (!curve) return <Waiting />;
  const move = (event: PointerEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getScreenCTM()!.inverse();
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(box);
    const travel = Math.min(1, Math.max(0, point.x / SIZE));
    const moves: Move[] = [{ address: `${strip}/${stage}/threshold`, travel }];
    link.draw(strip, moves);
    held.current?.move(byHand(moves, { stays: true }));
  };
  const up = () => {
    held.current?.end();
    held.current = null;
  };
  const { stands_db: stands, comes_db: comes } = curve;
  return (
    <figure className="flex flex-col gap-1">
      <svg
        viewBox={VIEW_BOX}
        className="w-full max-w-[340px] touch-none select-none cursor-ew-resize"
        role="img"
        aria-label={`Levels out over levels in, ${name}: threshold ${levelText(threshold)} dB`}
        onPointerDown={(event) => {
          if (event.button !== 0) return;
          event.currentTarget.setPointerCapture(event.pointerId);
          held.current = new Gesture(link);
          move(event);
        }}
        onPointerMove={(event) => held.current && move(event)}
        onPointerUp={up}
        onPointerCancel={up}
      >
        <LevelGrid />
        <line
          x1={at(threshold)}
          x2={at(threshold)}
          y1={0}
          y2={SIZE}
          stroke="var(--sun)"
          strokeDasharray="5 3"
        />
        <OutLine
          points={curve.in_db.map((into, place) => [into, curve.out_db[place]!])}
          stroke="var(--sea)"
        />
        {stands !== null && comes !== null && (
          <circle
            cx={at(stands)}
            cy={SIZE - at(comes)}
            r={6}
            fill="var(--iris)"
            stroke="var(--paper)"
            strokeWidth={1.5}
          />
        )}
      </svg>
      <figcaption className="text-[13.5px] text-soft">
        {byAnother
          ? "It stands where what opens it stands."
          : stands === null || comes === null
            ? "No level is known here."
            : `${ofLine ? "The line" : "What arrives"} is expected at ${levelText(stands)} dBFS; ${levelText(comes)} comes out.`}
      </figcaption>
    </figure>
  );
}
