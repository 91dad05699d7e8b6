import { useEffect } from "react";
import type { Ask, Move, Preview } from "../data/types";
import { useLink } from "../data/use";
import { Button } from "./Button";
import { Told, usePreview } from "./Consequence";

type Link = ReturnType<typeof useLink>;

/** Whether strips would jump, fall silent or become heard by an edit: then it is shown first. */
export const isFelt = (shown: Preview): boolean =>
  shown.breaks.length > 0 ||
  shown.silenced.length > 0 ||
  shown.opened.length > 0 ||
  (shown.keeping !== null &&
    shown.keeping.jumps.length + shown.keeping.silenced.length + shown.keeping.keep.length > 0);

/** The edit with the faders that keep every true level. */
export function kept(ask: Ask, keep: readonly Move[]): Ask {
  if (ask.action === "moves") return { ...ask, moves: [...ask.moves, ...keep] };
  if (ask.action === "members" || ask.action === "clear_ruler") return { ...ask, also: [...keep] };
  return ask;
}

/** Strips that join or leave: made at once if nobody feels it, else given to `onShow`. */
export async function join(link: Link, ask: Ask, onShow: (ask: Ask) => void): Promise<void> {
  const shown = await link.try(ask, { before: true });
  if (typeof shown !== "string" && isFelt(shown)) onShow(ask);
  else await link.do(ask, { quiet: false }); // a refusal is told by making the edit
}

/** What jumps and who falls silent by joining or leaving: to be taken, kept level, or left. */
export function Joining({ ask, onDone }: { ask: Ask; onDone: () => void }) {
  const link = useLink();
  const shown = usePreview(ask);
  const keep = shown && typeof shown !== "string" ? (shown.keeping?.keep ?? []) : [];
  const take = async (wanted: Ask) => {
    if (await link.do(wanted, { quiet: false })) onDone();
  };
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) void take(ask);
      if (event.key === "Escape") onDone();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  });
  return (
    <div className="flex items-start gap-2 shrink-0 flex-wrap">
      <div className="flex-1 min-w-64">
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
