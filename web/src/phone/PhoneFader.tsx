import { type PointerEvent, useRef, useState } from "react";
import { newId } from "../data/id";
import { levelText } from "../data/words";

/** Where dB lie along a fader, drawing alone: [dB, part of the way]; below the first it is off. */
export type Law = readonly (readonly [db: number, part: number])[];
export const OF_START: Law = [
  [-40, 0.04],
  [-20, 0.2],
  [-10, 0.36],
  [0, 0.56],
  [6, 0.72],
  [15, 1],
];
export const OF_LEVEL: Law = [
  [-60, 0.04],
  [-30, 0.28],
  [-10, 0.62],
  [0, 0.82],
  [6, 1],
];

const partOf = (db: number, law: Law): number => {
  if (db <= law[0]![0]) return law[0]![1];
  for (let n = 1; n < law.length; n++) {
    const [low, from] = law[n - 1]!;
    const [high, to] = law[n]!;
    if (db <= high) return from + ((db - low) / (high - low)) * (to - from);
  }
  return 1;
};
/** null: off, at the left end. */
const dbOf = (part: number, law: Law): number | null => {
  if (part < law[0]![1]) return null;
  for (let n = 1; n < law.length; n++) {
    const [low, from] = law[n - 1]!;
    const [high, to] = law[n]!;
    if (part <= to) return low + ((part - from) / (to - from)) * (high - low);
  }
  return law.at(-1)![0];
};

interface Props {
  name: string;
  note?: string;
  colour: string;
  /** Where it is drawn: dB against the start, or a level; null: off. */
  shown: number | null;
  /** Where it stands past the ends of ranges: a finger goes on from there. null: off. */
  place: number | null;
  law: Law;
  /** A mark where it started. */
  mark: number | null;
  /** Above which it is not raised, hatched. */
  end?: number | null;
  says: string;
  /** What it says stands in its note already. */
  bare?: boolean;
  large?: boolean;
  /** Another finger is on it. */
  touched?: boolean;
  disabled?: boolean;
  onMove: (place: number | null, gesture: string) => void;
  /** The finger leaves it. */
  onRelease?: (gesture: string) => void;
  onStart?: () => void;
}

const DOUBLE_MS = 320;
const FINE_PX = 70;
const STILL_PX = 6;

/**
 * A fader for a finger: it follows by the finger's way, finely once the finger is far above or below.
 * Two taps lead to the start. At the left end it is off.
 */
export function PhoneFader(props: Props) {
  const { law, shown, place, mark, end, disabled } = props;
  const lowest = law[0]![0];
  const highest = law.at(-1)![0];
  const box = useRef<HTMLDivElement>(null);
  const finger = useRef<{
    x: number;
    y: number;
    at: number;
    went: boolean;
    gesture: string;
  } | null>(null);
  const tapped = useRef(0);
  const [held, setHeld] = useState<number | null | undefined>(undefined);
  const at = (db: number | null) => (db === null ? 0 : partOf(db, law));
  // the finger leads while it is on; afterwards what stands
  const drawn = held === undefined ? shown : held;

  const said = held === undefined ? props.says : held === null ? "off" : levelText(held);

  const start = (event: PointerEvent) => {
    if (disabled || event.button > 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    finger.current = {
      x: event.clientX,
      y: event.clientY,
      at: at(place),
      went: false,
      gesture: newId(),
    };
  };
  const move = (event: PointerEvent) => {
    const one = finger.current;
    if (!one || !box.current) return;
    const far = Math.abs(event.clientY - one.y) > FINE_PX;
    const way = event.clientX - one.x;
    if (!one.went && Math.abs(way) < STILL_PX) return;
    one.went = true;
    one.x = event.clientX;
    one.at = Math.min(Math.max(one.at + (way / box.current.clientWidth) * (far ? 0.2 : 1), 0), 1);
    const found = dbOf(one.at, law);
    const to = found === null ? null : Math.round(found * 100) / 100;
    setHeld(to === null ? null : to + ((shown ?? to) - (place ?? to)));
    props.onMove(to, one.gesture);
  };
  const stop = () => {
    const one = finger.current;
    finger.current = null;
    setHeld(undefined);
    if (one?.went) props.onRelease?.(one.gesture);
    if (!one || one.went) return;
    const now = Date.now();
    if (now - tapped.current < DOUBLE_MS) {
      tapped.current = 0;
      props.onStart?.();
    } else tapped.current = now;
  };
  const nudge = (by: number) => {
    const to = Math.min((place ?? lowest) + by, highest);
    put(to <= lowest ? null : to);
  };
  const put = (to: number | null) => {
    const gesture = newId();
    props.onMove(to, gesture);
    props.onRelease?.(gesture);
  };
  return (
    <div
      ref={box}
      role="slider"
      tabIndex={disabled ? -1 : 0}
      aria-label={props.name}
      aria-valuemin={lowest}
      aria-valuemax={highest}
      aria-valuenow={drawn ?? lowest}
      aria-valuetext={props.says}
      aria-disabled={disabled}
      onPointerDown={start}
      onPointerMove={move}
      onPointerUp={stop}
      onPointerCancel={stop}
      onKeyDown={(event) => {
        const fine = event.shiftKey ? 0.2 : 1;
        const by = { ArrowRight: fine, ArrowUp: fine, ArrowLeft: -fine, ArrowDown: -fine }[
          event.key
        ];
        if (by && !disabled) nudge(by);
        else if (event.key === "Home" && !disabled) props.onStart?.();
        else if (event.key === "Delete" && !disabled) put(null);
        else return;
        event.preventDefault();
      }}
      className={`phone-fader relative flex-1 min-w-0 rounded-xl bg-card overflow-hidden select-none ${props.large ? "h-[76px]" : "h-[54px]"} ${disabled ? "opacity-70" : ""} ${props.touched ? "outline-2 outline-sun" : ""}`}
    >
      <span
        aria-hidden
        className="absolute inset-y-0 left-0 opacity-[0.3]"
        style={{ width: `${at(drawn) * 100}%`, background: `var(--strip-${props.colour})` }}
      />
      {end !== null && end !== undefined && at(end) < 1 && (
        <span
          aria-hidden
          className="hatch absolute inset-y-0 right-0"
          style={{ left: `${at(end) * 100}%` }}
        />
      )}
      {mark !== null && (
        <span
          aria-hidden
          className="absolute inset-y-0 border-l-2 border-dashed border-paper/60"
          style={{ left: `${at(mark) * 100}%` }}
        />
      )}
      <span
        aria-hidden
        className="absolute inset-y-1.5 w-1.5 rounded-full -ml-1.5"
        style={{ left: `${at(drawn) * 100}%`, background: `var(--strip-${props.colour})` }}
      />
      <span className="absolute inset-0 flex items-center justify-between gap-3 px-4 pointer-events-none">
        <span className="min-w-0">
          <span
            dir="auto"
            className={`block truncate font-semibold ${props.large ? "text-[22px] leading-7" : "text-[17px]"}`}
          >
            {props.name}
          </span>
          {props.note && (
            <span className="block truncate text-[13px] text-paper">{props.note}</span>
          )}
        </span>
        {!props.bare && (
          <span
            className={`shrink-0 ${/\d|off/.test(said) ? `font-bold ${props.large ? "text-[20px]" : "text-[17px]"}` : "text-[13.5px] text-soft"}`}
          >
            {said}
          </span>
        )}
      </span>
    </div>
  );
}
