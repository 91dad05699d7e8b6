/** Numbers on their way, drawn frame by frame. */
import { useEffect, useState } from "react";
import { pointAt } from "./fade";
import { useShow } from "./use";

/** A level where it sounds, frame by frame: on its way, or at rest as it stands. A hand takes it there. */
export function useSounding(address: string, rests: number | null): number | null {
  const way = useOnItsWay(address);
  return way === undefined ? rests : way;
}

/** Where a number is on its way; undefined while it rests. Only who draws it is drawn again. */
export function useOnItsWay(address: string): number | null | undefined {
  const fade = useShow((state) => state.fading.get(address));
  const [point, setPoint] = useState<number | null | undefined>(undefined);
  useEffect(() => {
    if (!fade) return;
    let frame = 0;
    const draw = () => {
      const now = pointAt(fade, performance.now());
      setPoint(now);
      if (now !== undefined) frame = requestAnimationFrame(draw);
    };
    draw();
    return () => cancelAnimationFrame(frame);
  }, [fade]);
  return fade ? point : undefined;
}
