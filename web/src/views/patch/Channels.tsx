import { useVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useRef } from "react";
import { type ShowState, valueOf } from "../../data/show";
import type { Ask } from "../../data/types";
import { fedBy, select, socketName, useLink, useOn, usePatched, useShow, useText } from "../../data/use";
import { ColourBar } from "../../ui/Panel";
import { Toggle } from "../../ui/Toggle";
import { TypedField } from "../../ui/TypedField";

interface Props {
  onStart: (channel: number) => void;
  onFeed: (ask: Ask, mine: string) => void;
  first: string;
  /** Only channels whose number, name or source holds this. */
  filter: string;
}

function channelsLike(state: ShowState, filter: string, all: number): readonly number[] {
  const wanted = filter.trim().toLowerCase();
  const numbers = Array.from({ length: all }, (_, index) => index + 1);
  if (!wanted) return numbers;
  return numbers.filter((number) => {
    const source = socketName(state, valueOf(state, `channel/${number}/source`) as string | null);
    return `${number} / ${valueOf(state, `channel/${number}/name`)} / ${source}`.toLowerCase().includes(wanted);
  });
}

/** Every channel of the desk with its source; clicking a number starts a fill there. */
export function Channels({ onStart, onFeed, first, filter }: Props) {
  const all = useShow((state) => state.desk!.channels);
  const shown = usePatched((state) => channelsLike(state, filter, all), [filter, all]);
  const count = shown.length;
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count,
    getScrollElement: () => scroller.current,
    estimateSize: () => 29,
    overscan: 10,
  });
  // what a fill would start at comes into sight, however it was typed
  useEffect(() => {
    const start = Number(/^\s*(\d+)/.exec(first)?.[1]);
    const place = shown.indexOf(start);
    if (place >= 0) rows.scrollToIndex(place, { align: "center" });
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [first, shown]);
  return (
    <section aria-label="Channels" className="flex flex-col min-h-0 rounded-xl bg-floor border border-line">
      <div className="grid grid-cols-[40px_minmax(0,1fr)_64px_64px_26px_30px] gap-1 px-2 h-[45px] items-center border-b border-line text-[12px] text-faint">
        <span>Ch.</span>
        <span className="pl-1.5">Name</span>
        <span className="pl-1.5">Source</span>
        <span className="pl-1.5">Spare</span>
        <span className="text-center" title="Fed by the spare">Use</span>
        <span title="A fill passes it by">Fix</span>
      </div>
      <div ref={scroller} className="scrolls flex-1 p-1.5" data-grid>
        <div className="relative" style={{ height: rows.getTotalSize() }}>
          {rows.getVirtualItems().map(({ index, start }) => (
            <div key={index} className="absolute inset-x-0" style={{ top: start }}>
              <ChannelRow channel={shown[index]!} onStart={onStart} onFeed={onFeed} start={first === String(shown[index])} />
            </div>
          ))}
        </div>
      </div>
    </section>
  );
}

function ChannelRow({ channel, onStart, onFeed, start }: Pick<Props, "onStart" | "onFeed"> & { channel: number; start: boolean }) {
  const link = useLink();
  const name = useText(`channel/${channel}/name`);
  const colour = useText(`channel/${channel}/colour`);
  const source = useShow((state) => valueOf(state, `channel/${channel}/source`) as string | null);
  const socket = useShow((state) => socketName(state, source));
  const spare = useShow((state) => socketName(state, valueOf(state, `channel/${channel}/spare`) as string | null));
  const onSpare = useOn(`channel/${channel}/on_spare`);
  const fixed = useOn(`channel/${channel}/fixed`);
  const set = (leaf: string, value: boolean) =>
    void link.do({ action: "moves", moves: [{ address: `channel/${channel}/${leaf}`, value }] });
  const sharers = useShow((state) => fedBy(state, source))
    .filter((other) => other !== channel)
    .join(", ");
  return (
    <div
      data-channel={channel}
      title={sharers ? `Shares its preamp with channel ${sharers}` : undefined}
      onFocus={() => select(`channel/${channel}`)}
      className="grid grid-cols-[40px_minmax(0,1fr)_64px_64px_26px_30px] gap-1 items-center h-[27px] rounded-md bg-card pr-1"
    >
      <button
        type="button"
        aria-label={`Fill from channel ${channel}`}
        onClick={() => onStart(channel)}
        className={`flex items-center gap-1 self-stretch rounded-l-md cursor-pointer ${start ? "bg-sun text-on-sun" : "hover:bg-raise"}`}
      >
        <ColourBar colour={colour} />
        <span className="w-6 text-right">{channel}</span>
      </button>
      <TypedField
        label={`Name of channel ${channel}`}
        value={name}
        placeholder="—"
        maxLength={60}
        onCommit={(typed) => void link.do({ action: "moves", moves: [{ address: `channel/${channel}/name`, typed }] })}
        data={{ "data-column": "name" }}
      />
      <TypedField
        label={`Source of channel ${channel}`}
        value={socket}
        placeholder="none"
        className={`text-[13px] ${onSpare ? "line-through text-faint" : sharers ? "text-iris" : ""}`}
        onCommit={(text) => onFeed({ action: "feed", channel, socket: text }, name)}
        data={{ "data-column": "source" }}
      />
      <TypedField
        label={`Spare of channel ${channel}`}
        value={spare}
        placeholder="—"
        className={`text-[13px] ${onSpare ? "text-iris" : ""}`}
        onCommit={(text) => void link.do({ action: "feed", channel, socket: text, spare: true }, { quiet: false })}
        data={{ "data-column": "spare" }}
      />
      {spare || onSpare ? (
        <Toggle label={`Channel ${channel} on its spare`} tone="sun" pressed={onSpare} onChange={(on) => set("on_spare", on)}>
          {onSpare ? "B" : "A"}
        </Toggle>
      ) : sharers ? (
        <span className="text-iris text-center" title={`Shares its preamp with channel ${sharers}`}>
          ⚭<span className="sr-only">shares its preamp with channel {sharers}</span>
        </span>
      ) : (
        <span />
      )}
      <Toggle label={`Channel ${channel} fixed`} tone="sun" pressed={fixed} onChange={(on) => set("fixed", on)}>
        fix
      </Toggle>
    </div>
  );
}
