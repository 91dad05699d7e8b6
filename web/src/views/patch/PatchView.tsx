import { useMemo, useState } from "react";
import { type ShowState, valueIn } from "../../data/show";
import type { Ask } from "../../data/types";
import { fedBy, useLink, usePatched, useShow } from "../../data/use";
import { levelText } from "../../data/words";
import { Free } from "../../frame/Free";
import { ViewHead } from "../../frame/ViewHead";
import { Button } from "../../ui/Button";
import { Consequence } from "../../ui/Consequence";

import { usePhone } from "../../ui/media";
import { SearchField } from "../../ui/SearchField";
import { Toggle } from "../../ui/Toggle";
import { TypedField } from "../../ui/TypedField";
import { useTaking } from "../../ui/useTaking";
import { Channels } from "./Channels";
import { PatchGrid } from "./PatchGrid";
import { Sockets } from "./Sockets";

/** How many lines feed no channel. */
const looseLines = (state: ShowState) =>
  state.lines.filter(
    (line) => fedBy(state, valueIn(state, `line/${line}/socket`) as string | null).length === 0,
  ).length;

/** Inputs: lines and sockets on the left, channels on the right, and a fill from one to the other. */
export function PatchView() {
  const [sockets, setSockets] = useState("");
  const [channels, setChannels] = useState("");
  const [filter, setFilter] = useState("");
  const taking = useTaking();
  const [asGrid, setAsGrid] = useState(false);
  const lines = useShow((state) => state.lines.length);
  const loose = usePatched(looseLines);
  const ask = useMemo<Ask | null>(
    () => (sockets.trim() && channels.trim() ? { action: "fill", sockets, to: channels } : null),
    [sockets, channels],
  );
  // on a phone what is chosen has the room
  const busy = usePhone() && sockets.trim() !== "";
  const clear = () => {
    setSockets("");
    setChannels("");
  };
  return (
    <>
      <ViewHead title="Patch">
        <Toggle label="As a grid" tone="sun" pressed={asGrid} onChange={setAsGrid}>
          grid
        </Toggle>
        <FillBar
          sockets={sockets}
          channels={channels}
          onSockets={setSockets}
          onChannels={setChannels}
          ask={ask}
          onDone={clear}
        />
      </ViewHead>
      {!asGrid && !ask && !busy && (
        <div className="flex items-center gap-x-3 gap-y-1.5 flex-wrap pb-2 shrink-0">
          <SearchField
            label="Find lines and channels"
            placeholder="Find a line or a channel"
            value={filter}
            onChange={setFilter}
            className="w-52"
          />
          <Free of={["channels"]} />
          <TargetLevel />
        </div>
      )}
      <Consequence ask={ask}>
        {busy
          ? null
          : asGrid
            ? "A click, or Enter, patches; again takes it away. What would be lost is shown first."
            : "Choose sockets at the left (drag, or Shift), then a channel at the right; or type both. Who loses what shows here first."}
      </Consequence>
      {taking.bar}
      {asGrid ? (
        <PatchGrid />
      ) : (
        <div className="grid grid-cols-[minmax(0,1.04fr)_minmax(0,1fr)] slim:grid-cols-1 slim:grid-rows-2 phone:grid-rows-[3fr_2fr] gap-3 flex-1 min-h-0 short:min-h-[760px]">
          <Sockets
            chosen={sockets}
            onChoose={setSockets}
            filter={filter}
            onSet={(wanted) => void taking.ask(wanted)}
          />
          <Channels
            onStart={(channel) => setChannels(String(channel))}
            onFeed={(wanted) => taking.ask(wanted)}
            first={channels}
            filter={filter}
          />
        </div>
      )}
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

/** "Harbour 1-16 to 1" (channels), or "to Quay 1-16" (a box that moved): typed, or filled in by choosing below; Enter patches. */
function FillBar({ sockets, channels, onSockets, onChannels, ask, onDone }: FillProps) {
  const link = useLink();
  const boxes = useShow((state) => state.desk!.boxes).filter((box) => box.inputs > 0);
  const field = "h-9 px-2.5 rounded-lg border border-edge bg-card placeholder:text-faint min-w-0";
  return (
    <form
      className="flex items-center gap-2 flex-1 min-w-[min(100%,320px)] phone:flex-wrap"
      onSubmit={async (event) => {
        event.preventDefault();
        if (ask && (await link.do(ask, { quiet: false }))) onDone();
      }}
      onKeyDown={(event) => event.key === "Escape" && onDone()}
    >
      <input
        aria-label="Sockets"
        placeholder={`Sockets, as ${boxes[0]?.short ?? "box"} 1-16`}
        className={`${field} flex-1`}
        value={sockets}
        onChange={(event) => onSockets(event.currentTarget.value)}
      />
      <span className="text-soft">to</span>
      <input
        aria-label="Channels"
        placeholder={`channels 1-16, or sockets ${boxes.at(-1)?.short ?? "box"} 1-16`}
        className={`${field} flex-1`}
        value={channels}
        onChange={(event) => onChannels(event.currentTarget.value)}
      />
      <Button tone="main" type="submit" disabled={!ask}>
        Patch
      </Button>
      <Button tone="quiet" onClick={onDone} disabled={!sockets && !channels}>
        Clear
      </Button>
    </form>
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

/** The level behind the preamps that suggested gains aim at, and all of them set to it. */
function TargetLevel() {
  const link = useLink();
  const target = useShow((state) => valueIn(state, "show/target_dbfs") as number);
  return (
    <span className="flex items-center gap-2 text-soft text-[13px] ml-auto">
      Target
      <TypedField
        boxed
        label="Target level in dBFS"
        value={levelText(target, 0)}
        align="right"
        className="w-14"
        onCommit={(typed) => void link.type("show/target_dbfs", typed)}
      />
      dBFS
      <Button small onClick={() => void link.do({ action: "suggest_gains" }, { quiet: false })}>
        Set all gains to it
      </Button>
    </span>
  );
}
