import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import { useSounding } from "../data/fading";
import { levelText } from "../data/words";
import { useTabIndex } from "./reach";
import { type Mark, placeAlong, travelOf } from "./travel";

interface Props {
  label: string;
  levelDb: number | null;
  marks: readonly Mark[];
  colour: string;
  muted?: boolean;
  /** The hand asks for a place of the travel, 0 to 1; the level that it means comes back. */
  onMove: (travel: number) => void;
  /** The hand lets go. */
  onRelease: () => void;
  /** A key asks for a step, as typed text. */
  onStep: (text: string) => void;
  /** Carried to the element, for painting across rows. */
  address: string;
  /** Where it stands in the row's grid. */
  area?: string;
}

/** So many px a hand may tremble before it moves anything. */
const STILL = 3;

const STEPS: Record<string, string> = {
  ArrowRight: "up 1",
  ArrowLeft: "down 1",
  PageUp: "up 3",
  PageDown: "down 3",
  Home: "off",
  End: "0",
};

/** A fader lying on its side: a bar with a handle; the travel's law is the core's. */
export function Fader(props: Props) {
  const { label, marks, colour, muted, onMove, onRelease, onStep, address } = props;
  const levelDb = useSounding(address, props.levelDb);
  const [asked, setAsked] = useState<number | null>(null);
  // a hand takes it where it stands, wherever on the track it comes down
  const held = useRef<{ x: number; y: number; from: number; moved: boolean } | null>(null);
  const strayed = useRef(false); // past what a hand may tremble, to whichever side
  const travel = asked ?? travelOf(levelDb, marks);
  const tabIndex = useTabIndex();
  const zero = travelOf(0, marks);

  const move = (event: PointerEvent<HTMLDivElement>) => {
    const hand = held.current;
    if (!hand) return;
    const far = event.clientX - hand.x;
    const away = Math.max(Math.abs(far), Math.abs(event.clientY - hand.y));
    strayed.current ||= away >= STILL;
    if (!hand.moved && Math.abs(far) < STILL) return;
    hand.moved = true;
    const box = event.currentTarget.getBoundingClientRect();
    const place = Math.min(1, Math.max(0, hand.from + far / Math.max(1, box.width)));
    // the left edge is off: a hand that goes to the end means silence
    const wanted = place < 0.015 ? 0 : place;
    setAsked(wanted);
    onMove(wanted);
  };
  const release = (event: PointerEvent<HTMLDivElement>) => {
    const hand = held.current;
    if (!hand) return;
    held.current = null;
    if (event.currentTarget.hasPointerCapture(event.pointerId))
      event.currentTarget.releasePointerCapture(event.pointerId);
    if (strayed.current) {
      setAsked(null);
      onRelease();
    } else if (event.type === "pointerup" && event.pointerType === "mouse") {
      // a click nudges towards where it was, and never jumps there; a finger may just rest
      const place = placeAlong(event.clientX, event.currentTarget.getBoundingClientRect());
      onStep(place > travel ? "up 1" : "down 1");
    }
  };
  const key = (event: KeyboardEvent<HTMLDivElement>) => {
    let step = STEPS[event.key];
    if (!step || event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.shiftKey) step = step.replace("1", "0.1");
    event.preventDefault();
    onStep(step);
  };

  return (
    <div
      role="slider"
      tabIndex={tabIndex}
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(travel * 100)}
      aria-valuetext={`${levelText(levelDb)}${levelDb === null ? "" : " dB"}${muted ? ", muted" : ""}`}
      data-address={address}
      style={props.area ? { gridArea: props.area } : undefined}
      data-muted={muted || undefined}
      className="group relative h-6 flex-1 min-w-24 rounded-md bg-raise cursor-ew-resize touch-none overflow-hidden"
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        held.current = { x: event.clientX, y: event.clientY, from: travel, moved: false };
        strayed.current = false;
      }}
      onPointerMove={move}
      onPointerUp={release}
      onPointerCancel={release}
      onKeyDown={key}
    >
      <div
        className={`absolute inset-y-0 left-0 ${muted ? "hatch" : ""}`}
        style={{
          width: `${travel * 100}%`,
          background: muted
            ? undefined
            : `color-mix(in oklab, var(--strip-${colour}) 34%, var(--raise))`,
        }}
      />
      <div className="absolute inset-y-0 w-px bg-edge/70" style={{ left: `${zero * 100}%` }} />
      <div
        className="drawn absolute inset-y-0.5 w-1 rounded-full"
        style={{
          left: `clamp(1px, calc(${travel * 100}% - 2px), calc(100% - 5px))`,
          background: `var(--strip-${colour})`,
        }}
      />
    </div>
  );
}
