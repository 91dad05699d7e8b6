import { type KeyboardEvent, useEffect, useRef } from "react";
import type { StripPath } from "../../data/types";
import { TAP_WORD } from "../../data/words";
import { GLYPHS } from "./stages";

interface Props {
  path: StripPath;
  chosen: string;
  onChoose: (key: string) => void;
  /** The strip before (−1) or after (1). */
  onStep: (step: number) => void;
}

const LEAST = 60; // px for a bead and its words

const LOOK = {
  on: "border-sea bg-raise text-paper",
  neutral: "border-edge bg-floor text-soft",
  off: "border-dashed border-edge bg-floor text-faint",
  shut: "border-coral bg-blocked text-coral",
} as const;

/** The path as beads on a line, in the order of the signal; below, who takes it at which tap. */
export function PathLine({ path, chosen, onChoose, onStep }: Props) {
  const line = useRef<HTMLDivElement>(null);
  const crowded = path.leaves.some((one) => one.tap === "before_fader_after_mute");
  const columns = `repeat(${path.beads.length}, minmax(0, 1fr))`;
  useEffect(() => {
    line.current
      ?.querySelector(`[data-stage="${chosen}"]`)
      ?.scrollIntoView({ block: "nearest", inline: "nearest" });
  }, [chosen]);
  const onKey = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const keys = path.beads.map((bead) => bead.key);
    const at = keys.indexOf(chosen);
    const step = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (step !== undefined) {
      const next = keys[Math.min(Math.max(at + step, 0), keys.length - 1)]!;
      onChoose(next);
      line.current?.querySelector<HTMLElement>(`[data-stage="${next}"]`)?.focus();
    } else if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      onStep(event.key === "ArrowDown" ? 1 : -1);
    } else return;
    event.preventDefault();
  };
  return (
    <div className="scrolls shrink-0 pb-2">
      <div
        ref={line}
        role="radiogroup"
        aria-label="Path of the strip"
        onKeyDown={onKey}
        data-wide
        className="relative grid gap-y-1"
        style={{ gridTemplateColumns: columns, minWidth: path.beads.length * LEAST }}
      >
        <span
          aria-hidden
          className="absolute left-8 right-8 top-[45px] h-[3px] rounded-full bg-sea/60"
        />
        {path.beads.map((bead, index) => (
          <button
            key={bead.key}
            type="button"
            role="radio"
            aria-checked={bead.key === chosen}
            aria-label={`${bead.word}, ${bead.says}`}
            tabIndex={bead.key === chosen ? 0 : -1}
            data-stage={bead.key}
            onClick={() => onChoose(bead.key)}
            className="relative flex flex-col items-center gap-1 cursor-pointer px-0.5"
            style={{ gridColumn: index + 1, gridRow: 1 }}
          >
            <span
              className={`text-[12.5px] font-semibold whitespace-nowrap ${bead.key === chosen ? "text-sun-text" : ""}`}
            >
              {bead.word}
            </span>
            <span
              className={`w-11 h-11 rounded-full border-2 grid place-items-center text-[15px] ${bead.key === chosen ? "!border-sun !bg-sun !text-on-sun" : ""} ${LOOK[bead.look]}`}
              aria-hidden
            >
              {GLYPHS[bead.key]}
            </span>
            <span
              className={`text-[12px] leading-tight text-center line-clamp-2 ${bead.look === "shut" ? "text-coral" : "text-soft"}`}
            >
              {bead.says}
            </span>
          </button>
        ))}
        {path.leaves.map((leaves) => {
          const place = path.beads.findIndex((bead) => bead.key === leaves.behind);
          // each ends below its bead; what would run into its neighbour goes a row down
          const first = leaves.tap === "after_fader" ? place : Math.max(0, place - 2);
          const below = leaves.tap === "before_fader" && crowded;
          return (
            <span
              key={leaves.tap}
              title={leaves.names.join(", ")}
              className={`text-[12px] leading-tight text-faint pt-1 px-1 border-t-2 border-sea/50 min-w-0 ${place > 1 ? "text-right" : ""}`}
              style={{
                gridColumn: `${first + 1} / ${place + 2}`,
                gridRow: below ? 3 : 2,
              }}
            >
              {TAP_WORD[leaves.tap]}
              <strong dir="auto" className="text-paper line-clamp-2 break-words">
                {leaves.names.length <= 2
                  ? leaves.names.join(", ")
                  : `${leaves.names[0]} and ${leaves.names.length - 1} more`}
              </strong>
            </span>
          );
        })}
      </div>
    </div>
  );
}
