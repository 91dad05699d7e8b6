import { useShow } from "../../data/use";
import { levelText } from "../../data/words";
import { type Mark, travelOf } from "../../ui/travel";

/** What is written beside the faders, in dB. */
const LEVELS = [6, 0, -5, -10, -15, -20, -30, -40, -60] as const;

const useHeights = (): readonly (readonly [level: number, height: string])[] => {
  const marks = useShow((state) => state.desk!.fader_marks as Mark[]);
  return LEVELS.map((level) => [level, `${travelOf(level, marks) * 100}%`]);
};

/** The scale beside the faders. What stands below a fader stands below it too, unseen: they end alike. */
export function BankScale() {
  const heights = useHeights();
  return (
    <div aria-hidden className="w-7 shrink-0 flex flex-col gap-1 p-1 pr-0 text-[11px] text-faint">
      <div className="relative flex-1 min-h-32">
        {heights.map(([level, bottom]) => (
          <span
            key={level}
            data-scale={level}
            className={`absolute right-0.5 translate-y-1/2 leading-none ${level === 0 ? "text-paper font-semibold" : ""}`}
            // the ends stay within: nothing is cut off
            style={{ bottom: `clamp(6px, ${bottom}, calc(100% - 6px))` }}
          >
            {levelText(level, 0)}
          </span>
        ))}
      </div>
      <span className="h-[3px] shrink-0" />
      <span className="h-[31px] coarse:h-11" />
      <span className="text-[12px] invisible">0</span>
      <span className="h-7 coarse:h-11 shrink-0" />
      <span className="h-9 min-h-6 coarse:h-11" />
      <span className="h-8 min-h-6 coarse:h-11" />
      <span className="h-8 coarse:h-11" />
    </div>
  );
}

/** The lines of the scale across a fader. */
export function ScaleLines() {
  return useHeights().map(([level, bottom]) => (
    <span
      key={level}
      data-scale-line={level}
      aria-hidden
      className={`absolute left-0 border-t pointer-events-none ${level === 0 ? "right-0 border-soft/70" : "w-2 border-edge"}`}
      style={{ bottom }}
    />
  ));
}
