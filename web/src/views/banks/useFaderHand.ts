import { type PointerEvent, useEffect, useRef, useState } from "react";
import { byHand } from "../../data/hand";
import { Gesture } from "../../data/link";
import { useLink } from "../../data/use";
import { type Mark, travelOf } from "../../ui/travel";

const FINE_AWAY = 70; // px beside the fader, past which the hand moves it finely
const STILL = 3; // px a hand may tremble before it moves anything
const WHEEL_REST_MS = 1000; // turns within this are one gesture

/**
 * A hand on a vertical fader: moves it from where it stands, finely far beside it; and the wheel.
 * `own`: where it sounds. `beside`: strips that are taken together with it.
 */
export function useFaderHand(
  address: string,
  marks: readonly Mark[],
  own: number | null,
  beside: readonly string[],
) {
  const link = useLink();
  const ref = useRef<HTMLDivElement>(null);
  const [asked, setAsked] = useState<number | null>(null);
  // what the hand took it keeps, whatever comes to lie at this place meanwhile
  const held = useRef<{
    gesture: Gesture;
    address: string;
    y: number;
    from: number;
    travel: number;
    moved: boolean;
  } | null>(null);
  const sounds = useRef(own);
  sounds.current = own;
  const wheel = useRef<{ gesture: Gesture; level: number; timer: number } | null>(null);

  const down = (event: PointerEvent<HTMLDivElement>) => {
    if (event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    held.current = {
      gesture: new Gesture(link),
      address,
      y: event.clientY,
      from: event.clientY,
      travel: travelOf(own, marks),
      moved: false,
    };
  };
  const move = (event: PointerEvent<HTMLDivElement>) => {
    const now = held.current;
    if (!now) return;
    if (!now.moved && Math.abs(event.clientY - now.from) < STILL) return;
    now.moved = true;
    const box = event.currentTarget.getBoundingClientRect();
    const away = Math.max(box.left - event.clientX, event.clientX - box.right);
    const scale = away > FINE_AWAY ? 0.2 : 1;
    const travel = now.travel + ((now.y - event.clientY) / box.height) * scale;
    now.y = event.clientY;
    now.travel = Math.min(1, Math.max(0, travel));
    const wanted = now.travel < 0.015 ? 0 : now.travel;
    setAsked(wanted);
    now.gesture.move(byHand([{ address: now.address, travel: wanted }], { beside, stays: true }));
  };
  const up = (event: PointerEvent<HTMLDivElement>) => {
    if (!held.current) return;
    if (event.currentTarget.hasPointerCapture(event.pointerId))
      event.currentTarget.releasePointerCapture(event.pointerId);
    const { gesture, moved, address: taken, travel } = held.current;
    if (!moved && event.type === "pointerup" && event.pointerType === "mouse") {
      // a click nudges towards where it was, and never jumps there; a finger may just rest
      const box = event.currentTarget.getBoundingClientRect();
      const place = (box.bottom - event.clientY) / Math.max(1, box.height);
      gesture.move(
        byHand([{ address: taken, typed: place > travel ? "up 1" : "down 1" }], { beside }),
      );
    }
    gesture.end();
    held.current = null;
    setAsked(null);
  };
  useEffect(() => {
    const element = ref.current;
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const now = wheel.current;
      const from = now?.level ?? sounds.current;
      if (from === null) return; // the wheel opens nothing that is off
      if (now) clearTimeout(now.timer);
      const level = Math.min(6, Math.round((from - Math.sign(event.deltaY) * 0.5) * 10) / 10);
      const gesture = now?.gesture ?? new Gesture(link);
      const timer = window.setTimeout(() => {
        gesture.end();
        if (wheel.current?.gesture === gesture) wheel.current = null;
      }, WHEEL_REST_MS);
      wheel.current = { gesture, level, timer };
      gesture.move(byHand([{ address, value: level }], { beside, stays: true }));
    };
    element?.addEventListener("wheel", onWheel, { passive: false });
    return () => {
      element?.removeEventListener("wheel", onWheel);
      wheel.current = null; // another strip may lie here now: its turns are another gesture
    };
  }, [address, link, beside]);
  return { ref, asked, down, move, up };
}
