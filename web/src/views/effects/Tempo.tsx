import { useRef } from "react";
import { useLink, useText } from "../../data/use";
import { Button } from "../../ui/Button";
import { TypedField } from "../../ui/TypedField";

/** The tempo that delays are held to: typed, or tapped. */
export function Tempo() {
  const link = useLink();
  const bpm = useText("show/tempo");
  const taps = useRef<number[]>([]);
  const tap = () => {
    taps.current = [...taps.current, performance.now()].slice(-16);
    if (taps.current.length > 1)
      void link.do({ action: "set_tempo", typed: "", taps: taps.current });
  };
  return (
    <span className="flex items-center gap-2">
      <span className="text-soft">Tempo</span>
      <TypedField
        boxed
        label="Tempo in bpm"
        value={bpm}
        align="right"
        className="w-16 coarse:h-11"
        onCommit={(typed) => void link.do({ action: "set_tempo", typed, taps: [] })}
      />
      <Button small onPointerDown={tap} onKeyDown={(event) => event.key === " " && tap()}>
        Tap the tempo
      </Button>
    </span>
  );
}
