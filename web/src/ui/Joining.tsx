import { type ReactNode, useCallback, useState } from "react";
import type { Ask, Move, Preview } from "../data/types";
import { useLink } from "../data/use";
import { Button } from "./Button";
import { Told, usePreview } from "./Consequence";
import { useTakeOrLeave } from "./keys";

/** Whether strips would jump, fall silent or become heard by an edit: then it is shown first. */
const isFelt = (shown: Preview): boolean =>
  shown.breaks.length > 0 ||
  shown.silenced.length > 0 ||
  shown.opened.length > 0 ||
  (shown.compensation !== null &&
    shown.compensation.jumps.length +
      shown.compensation.silenced.length +
      shown.compensation.keep.length >
      0);

/** The edit with the faders that keep every true level. */
function kept(ask: Ask, keep: readonly Move[]): Ask {
  if (ask.action === "moves") return { ...ask, moves: [...ask.moves, ...keep] };
  if (ask.action === "members" || ask.action === "clear_ruler") return { ...ask, also: [...keep] };
  return ask;
}

interface Felt {
  ask: Ask;
  shown: Preview;
  turn: number;
}

/**
 * Strips that join or leave: made at once if nobody feels it, else shown first in the bar, to be taken,
 * kept level, or left. `join` tells whether it was made at once.
 */
export function useJoining(): { join: (ask: Ask) => Promise<boolean>; bar: ReactNode } {
  const link = useLink();
  const [felt, setFelt] = useState<Felt | null>(null);
  const join = useCallback(
    async (ask: Ask) => {
      const shown = await link.try(ask, { before: true });
      // a refusal is told by making the edit
      if (typeof shown === "string" || !isFelt(shown)) return link.do(ask, { quiet: false });
      setFelt((last) => ({ ask, shown, turn: (last?.turn ?? 0) + 1 }));
      return false;
    },
    [link],
  );
  const bar = felt && (
    <Joining key={felt.turn} ask={felt.ask} known={felt.shown} onDone={() => setFelt(null)} />
  );
  return { join, bar };
}

interface Props {
  ask: Ask;
  /** What it was said to do when it was asked for; told anew when the show moves. */
  known: Preview;
  onDone: () => void;
}

function Joining({ ask, known, onDone }: Props) {
  const link = useLink();
  const shown = usePreview(ask, known);
  const keep = shown && typeof shown !== "string" ? (shown.compensation?.keep ?? []) : [];
  const take = async (wanted: Ask) => {
    if (await link.do(wanted, { quiet: false })) onDone();
  };
  useTakeOrLeave(() => void take(ask), onDone);
  return (
    <div className="flex items-start gap-2 shrink-0 flex-wrap phone:pb-2">
      <div className="flex-1 min-w-64 phone:min-w-full">
        <Told shown={shown} />
      </div>
      {keep.length > 0 && (
        <Button
          tone="main"
          title="The faders take up the difference"
          onClick={() => void take(kept(ask, keep))}
        >
          Keep levels
        </Button>
      )}
      <Button
        tone={keep.length > 0 ? "plain" : "main"}
        title="Ctrl+Enter"
        onClick={() => void take(ask)}
      >
        Take it
      </Button>
      <Button title="Escape" onClick={onDone}>
        Leave it
      </Button>
    </div>
  );
}
