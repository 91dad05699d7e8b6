import { useCallback } from "react";
import { hasPhrase } from "../../data/search";
import { type ShowState, valueIn } from "../../data/show";
import type { Ask } from "../../data/types";
import { fedBy, socketName, useFiltered, useLink, useOn, useShow, useText } from "../../data/use";
import { useTwoLineHeight } from "../../ui/media";
import { OwnWord } from "../../ui/OwnWord";
import { ColourBar } from "../../ui/Panel";
import { RowList } from "../../ui/RowList";
import { useTabIndex } from "../../ui/reach";
import { Toggle } from "../../ui/Toggle";
import { TypedField } from "../../ui/TypedField";

interface Props {
  onStart: (channel: number) => void;
  onFeed: (ask: Ask, mine: string) => void;
  first: string;
  /** Only channels whose number, name or source holds this. */
  filter: string;
}

function channelsLike(state: ShowState, filter: string): readonly number[] {
  const said = hasPhrase(filter);
  const numbers = Array.from({ length: state.desk!.channels }, (_, index) => index + 1);
  if (!filter.trim()) return numbers;
  return numbers.filter((number) => {
    const source = socketName(state, valueIn(state, `channel/${number}/source`) as string | null);
    return said(`${number} / ${valueIn(state, `channel/${number}/name`)} / ${source}`);
  });
}

/** Every channel of the desk with its source; clicking a number starts a fill there. */
export function Channels({ onStart, onFeed, first, filter }: Props) {
  const shown = useFiltered(channelsLike, filter);
  const height = useTwoLineHeight(29);
  // what a fill would start at comes into sight, however it was typed
  const start = Number(/^\s*(\d+)/.exec(first)?.[1]) || null;
  const row = useCallback(
    (channel: number) => (
      <ChannelRow
        channel={channel}
        onStart={onStart}
        onFeed={onFeed}
        start={first === String(channel)}
      />
    ),
    [onStart, onFeed, first],
  );
  return (
    <section
      aria-label="Channels"
      className="flex flex-col min-h-0 rounded-xl bg-floor border border-line"
    >
      <div className="row-channel least:!hidden px-2 h-[45px] items-center border-b border-line text-[12px] text-faint">
        <span>Ch.</span>
        <span className="pl-1.5">Name</span>
        <span className="pl-1.5">Source</span>
        <span className="pl-1.5">
          <OwnWord word="Spare" />
        </span>
        <span className="text-center" title="Whether its source or its spare feeds it">
          Fed by
        </span>
        <OwnWord word="Reserved" />
      </div>
      <RowList
        label="Channels"
        keys={shown}
        height={height}
        row={row}
        shown={start}
        className="p-1.5"
      />
    </section>
  );
}

function ChannelRow({
  channel,
  onStart,
  onFeed,
  start,
}: Pick<Props, "onStart" | "onFeed"> & { channel: number; start: boolean }) {
  const link = useLink();
  const tabIndex = useTabIndex();
  const name = useText(`channel/${channel}/name`);
  const colour = useText(`channel/${channel}/colour`);
  const source = useShow((state) => valueIn(state, `channel/${channel}/source`) as string | null);
  const socket = useShow((state) => socketName(state, source));
  const spare = useShow((state) =>
    socketName(state, valueIn(state, `channel/${channel}/spare`) as string | null),
  );
  const onSpare = useOn(`channel/${channel}/on_spare`);
  const fixed = useOn(`channel/${channel}/fixed`);
  const set = (leaf: string, value: boolean) => void link.put(`channel/${channel}/${leaf}`, value);
  const sharers = useShow((state) => fedBy(state, source))
    .filter((other) => other !== channel)
    .join(", ");
  return (
    <div
      data-channel={channel}
      title={sharers ? `Shares its preamp with channel ${sharers}` : undefined}
      data-subject={`channel/${channel}`}
      className="row-channel h-[calc(100%-2px)] rounded-md bg-card pr-1"
    >
      <button
        type="button"
        aria-label={`Fill from channel ${channel}`}
        tabIndex={tabIndex}
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
        onCommit={(typed) => void link.type(`channel/${channel}/name`, typed)}
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
        onCommit={(text) =>
          void link.do({ action: "feed", channel, socket: text, spare: true }, { quiet: false })
        }
        data={{ "data-column": "spare" }}
      />
      {spare || onSpare ? (
        <Toggle
          label={`Channel ${channel} fed by its ${onSpare ? "spare" : "source"}`}
          tone="sun"
          pressed={onSpare}
          onChange={(on) => set("on_spare", on)}
        >
          {onSpare ? "spare" : "source"}
        </Toggle>
      ) : sharers ? (
        <span className="text-iris text-center" title={`Shares its preamp with channel ${sharers}`}>
          ⚭<span className="sr-only">shares its preamp with channel {sharers}</span>
        </span>
      ) : (
        <span />
      )}
      <Toggle
        label={`${fixed ? "yes" : "no"}, reserved, channel ${channel}`}
        tone="sun"
        pressed={fixed}
        onChange={(on) => set("fixed", on)}
      >
        {fixed ? "yes" : "no"}
      </Toggle>
    </div>
  );
}
