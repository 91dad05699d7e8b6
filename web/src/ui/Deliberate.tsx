import { useEffect, useState } from "react";
import { Button } from "./Button";

interface Props {
  /** What it does, in words: said on the key and again when armed. */
  says: string;
  /** Short words for a small key; `says` is then its accessible name. */
  short?: string;
  onDone: () => void;
  /** It was pressed once: what it would do may be shown. */
  onArmed?: () => void;
  className?: string;
}

const ARMED_MS = 5000;

/**
 * An action that takes two deliberate presses in place: the first arms the key for a few seconds,
 * the second does it. Escape, leaving it or waiting puts it back. Mouse and keyboard alike.
 */
export function Deliberate({ says, short, onDone, onArmed, className = "" }: Props) {
  const [armed, setArmed] = useState(false);
  useEffect(() => {
    if (!armed) return;
    const timer = setTimeout(() => setArmed(false), ARMED_MS);
    return () => clearTimeout(timer);
  }, [armed]);
  return (
    <Button
      small
      tone={armed ? "main" : "danger"}
      aria-label={
        armed
          ? `Press again: ${says}${short ? ", again?" : ""}`
          : short
            ? `${says}, ${short}`
            : says
      }
      data-armed={armed || undefined}
      title={armed ? `Press again: ${says}` : says}
      className={className}
      onBlur={() => setArmed(false)}
      onKeyDown={(event) => event.key === "Escape" && setArmed(false)}
      onClick={() => {
        if (armed) onDone();
        else onArmed?.();
        setArmed(!armed);
      }}
    >
      <span className="truncate">
        {armed ? (short ? "again?" : `Press again: ${says}`) : (short ?? says)}
      </span>
    </Button>
  );
}
