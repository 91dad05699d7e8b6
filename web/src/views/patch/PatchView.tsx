import { useEffect, useMemo, useState } from "react";
import { valueOf } from "../../data/show";
import { useLink, useShow } from "../../data/use";
import type { Ask, Preview } from "../../data/types";
import { Button } from "../../ui/Button";
import { ViewHead } from "../../ui/Panel";
import { Channels } from "./Channels";
import { Sockets } from "./Sockets";

/** Inputs: lines and sockets on the left, channels on the right, and a fill from one to the other. */
export function PatchView() {
  const [sockets, setSockets] = useState("");
  const [channels, setChannels] = useState("");
  const lines = useShow((state) => state.lines.length);
  const loose = useShow(
    (state) =>
      state.lines.filter((line) => {
        const socket = valueOf(state, `line/${line}/socket`);
        return !socket || !state.channels.some((n) => state.values[`channel/${n}/source`] === socket);
      }).length,
  );
  const ask = useMemo<Ask | null>(
    () => (sockets.trim() && channels.trim() ? { action: "fill", sockets, channels } : null),
    [sockets, channels],
  );
  const clear = () => {
    setSockets("");
    setChannels("");
  };
  return (
    <>
      <ViewHead title="Patch">
        <FillBar sockets={sockets} channels={channels} onSockets={setSockets} onChannels={setChannels} ask={ask} onDone={clear} />
      </ViewHead>
      <Consequence ask={ask} />
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-3 flex-1 min-h-0">
        <Sockets chosen={sockets} onChoose={setSockets} />
        <Channels onStart={(channel) => setChannels(String(channel))} first={channels} />
      </div>
      {lines > 0 && loose > 0 && <PatchAll loose={loose} />}
    </>
  );
}

interface FillProps {
  sockets: string;
  channels: string;
  onSockets: (text: string) => void;
  onChannels: (text: string) => void;
  ask: Ask | null;
  onDone: () => void;
}

/** "A 1-16 to channels 1": typed, or filled in by choosing below; Enter patches. */
function FillBar({ sockets, channels, onSockets, onChannels, ask, onDone }: FillProps) {
  const link = useLink();
  const field = "h-9 px-2.5 rounded-lg border border-edge bg-card placeholder:text-faint min-w-0";
  return (
    <form
      className="flex items-center gap-2 flex-1 min-w-0"
      onSubmit={async (event) => {
        event.preventDefault();
        if (ask && (await link.do(ask, { quiet: false }))) onDone();
      }}
      onKeyDown={(event) => event.key === "Escape" && onDone()}
    >
      <input aria-label="Sockets" placeholder="Sockets, as A 1-16" className={`${field} flex-1`} value={sockets} onChange={(event) => onSockets(event.currentTarget.value)} />
      <span className="text-soft">to channels</span>
      <input aria-label="Channels" placeholder="1, or 1-16" className={`${field} w-28`} value={channels} onChange={(event) => onChannels(event.currentTarget.value)} />
      <Button tone="main" type="submit" disabled={!ask}>
        Patch
      </Button>
      <Button tone="quiet" onClick={onDone} disabled={!sockets && !channels}>
        Clear
      </Button>
    </form>
  );
}

/** What the core says an edit would do, asked again whenever the edit or the show changes. */
function usePreview(ask: Ask | null): Preview | string | null {
  const link = useLink();
  const revision = useShow((state) => state.revision);
  const [shown, setShown] = useState<Preview | string | null>(null);
  useEffect(() => {
    if (!ask) {
      setShown(null);
      return;
    }
    let current = true;
    const timer = setTimeout(() => {
      void link.try(ask).then((answer) => current && setShown(answer));
    }, 120);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [link, ask, revision]);
  return shown;
}

function names(pairs: readonly (readonly [string, string])[]): string {
  const bySource = new Map<string, string[]>();
  for (const [source, listener] of pairs) bySource.set(source, [...(bySource.get(source) ?? []), listener]);
  const parts = [...bySource].map(([source, listeners]) =>
    listeners.length > 3
      ? `${source} for ${listeners.slice(0, 2).join(", ")} and ${listeners.length - 2} more`
      : `${source} for ${listeners.join(", ")}`,
  );
  return parts.length > 4 ? `${parts.slice(0, 4).join("; ")}; and ${parts.length - 4} more` : parts.join("; ");
}

/** Before a fill is made: who loses what, and who falls silent. */
function Consequence({ ask }: { ask: Ask | null }) {
  const shown = usePreview(ask);
  if (!ask) {
    return (
      <p className="text-faint text-[13px] pb-2 shrink-0">
        Choose sockets at the left (drag, or Shift), then a channel at the right; or type both. Who loses what shows here first.
      </p>
    );
  }
  if (!shown) return <p className="text-soft pb-2">Looking at what it would do…</p>;
  if (typeof shown === "string") return <p className="text-coral pb-2" role="alert">{shown}</p>;
  return (
    <div className="rounded-xl border border-line bg-floor px-3 py-2 mb-2 max-h-32 scrolls shrink-0" role="status" data-testid="consequence">
      {shown.changes === 0 && <p className="text-soft">It stands so already: nothing to change.</p>}
      {shown.losses.map((loss, index) => (
        <p key={index}>
          <strong className="text-coral">{loss.who}</strong> loses {loss.loses}
          {loss.to !== "nothing" && <span className="text-soft"> ({loss.to})</span>}
        </p>
      ))}
      {shown.silenced.length > 0 && <p className="text-coral">Falls silent: {names(shown.silenced)}</p>}
      {shown.opened.length > 0 && <p className="text-sea">Becomes heard: {names(shown.opened)}</p>}
      {shown.changes > 0 && shown.losses.length === 0 && shown.silenced.length === 0 && (
        <p className="text-sea">Nobody loses anything.</p>
      )}
    </div>
  );
}

function PatchAll({ loose }: { loose: number }) {
  const link = useLink();
  return (
    <div className="flex items-center gap-3 mt-2 rounded-xl border border-line bg-floor px-3 py-2 shrink-0">
      <span>
        <strong>{loose}</strong> {loose === 1 ? "line has" : "lines have"} no socket or no channel.
      </span>
      <Button small onClick={() => void link.do({ action: "patch_lines" }, { quiet: false })}>
        Patch them in order
      </Button>
    </div>
  );
}
