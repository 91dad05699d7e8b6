import { type KeyboardEvent, type MouseEvent, memo, useState } from "react";
import { hasPhrase } from "../../data/search";
import { type ShowState, store, valueIn } from "../../data/show";
import type { Ask } from "../../data/types";
import { select, socketName, stripName, useFiltered, useLink, useShow } from "../../data/use";
import type { Place } from "../../ui/grid/block";
import { GridFrame } from "../../ui/grid/GridFrame";
import { useGrid } from "../../ui/grid/useGrid";
import { Taking, takeIt } from "../../ui/Taking";
import { usage } from "./usage";

const CELL = 24;
const ROW_HEAD = 196;
const COLUMN_HEAD = 116;

interface RowData {
  socket: string;
  name: string;
  line: string;
  phantom: boolean;
  /** Colour of its first line's family, and that line's first letter. */
  colour: string;
  letter: string;
  /** Channels that it feeds, and channels that keep it as a spare. */
  feeds: readonly number[];
  spareOf: readonly number[];
}

/**
 * Every input socket against every channel. A row is one element with its grid lines as a background
 * and a mark for each channel that it feeds, so that the largest desk scrolls at the screen's rate.
 */
export function PatchGrid() {
  const link = useLink();
  const desk = useShow((state) => state.desk!);
  const [filter, setFilter] = useState("");
  const [taking, setTaking] = useState<Ask | null>(null);
  const rows = useFiltered(rowsOf, filter);
  const grid = useGrid({
    rows: rows.length,
    columns: desk.channels,
    height: CELL,
    width: CELL,
    headWidth: ROW_HEAD,
    headHeight: COLUMN_HEAD,
    onGo: ({ column }) => {
      setTaking(null);
      select(`channel/${column + 1}`);
    },
  });
  const cursor = grid.head;

  const patch = (place: Place) => {
    const row = rows[place.row];
    if (!row) return;
    const channel = place.column + 1;
    const has = row.feeds.includes(channel);
    const ask: Ask = { action: "feed", channel, socket: has ? "" : row.name };
    // a free channel is patched at once; whoever would lose a source is shown first
    const loses = valueIn(store.getState(), `channel/${channel}/source`) !== null;
    if (loses) setTaking(ask);
    else void link.do(ask);
  };
  const onKey = (event: KeyboardEvent) => {
    if (grid.walk(event) || event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === "Escape") {
      setTaking(null);
      return;
    }
    if (event.key !== "Enter" && event.key !== " ") return;
    event.preventDefault();
    if (event.key === "Enter" && taking) void takeIt(link, taking, () => setTaking(null));
    else patch(cursor);
  };
  const onClick = (event: MouseEvent<HTMLDivElement>, row: number) => {
    const column = Math.floor(
      (event.clientX - event.currentTarget.getBoundingClientRect().left) / CELL,
    );
    if (column < 0 || column >= desk.channels) return;
    grid.goTo({ row, column });
    patch({ row, column });
  };
  const here = rows[cursor.row];

  return (
    <>
      {taking && <Taking ask={taking} onDone={() => setTaking(null)} />}
      <div className="flex items-center gap-3 pb-2 shrink-0">
        <input
          aria-label="Find sockets and lines"
          placeholder="Find a socket, a line, a box"
          className="h-8 w-56 px-2.5 rounded-lg border border-edge bg-card placeholder:text-faint"
          value={filter}
          onChange={(event) => {
            setFilter(event.currentTarget.value);
            grid.follow({ row: 0, column: cursor.column });
          }}
        />
        <span dir="auto" className="text-soft truncate" role="status">
          {here &&
            `${here.name} ${here.line && `(${here.line})`} → channel ${cursor.column + 1} ${stripName(store.getState(), `channel/${cursor.column + 1}`)}`}
        </span>
      </div>
      <GridFrame
        grid={grid}
        label="Sockets against channels"
        cellId="patch"
        counts={[rows.length, desk.channels]}
        headWidth={ROW_HEAD}
        headHeight={COLUMN_HEAD}
        headClass="bg-floor border-b border-line"
        className="border border-line bg-floor"
        onKeyDown={onKey}
        corner={<span className="sr-only">Socket</span>}
        heads={grid.columns
          .getVirtualItems()
          .map(({ index, start }) => (
            <ColumnHead
              key={index}
              channel={index + 1}
              left={start}
              here={index === cursor.column}
            />
          ))}
        row={({ index, start }) => (
          <div
            key={rows[index]!.socket}
            role="row"
            aria-rowindex={index + 2}
            className="absolute left-0 flex"
            style={{ top: start, height: CELL }}
          >
            <div
              role="rowheader"
              className={`sticky left-0 z-10 flex gap-2 items-center px-2 shrink-0 border-b border-ink ${index === cursor.row ? "bg-raise" : "bg-card"}`}
              style={{ width: ROW_HEAD }}
            >
              <span className="w-14 shrink-0 text-faint">{rows[index]!.name}</span>
              <span dir="auto" className="truncate flex-1">
                {rows[index]!.line}
              </span>
              {rows[index]!.phantom && (
                <span className="text-[11px] font-semibold text-coral">48 V</span>
              )}
            </div>
            <Marks
              row={rows[index]!}
              width={desk.channels * CELL}
              cursor={index === cursor.row ? cursor : null}
              onClick={(event) => onClick(event, index)}
            />
          </div>
        )}
      />
    </>
  );
}

/** Rows whose box and number, socket or lines hold what is typed: "b 2", "stage box b", "kora". */
function rowsOf(state: ShowState, filter: string): RowData[] {
  const used = usage(state);
  const said = hasPhrase(filter);
  const spares = new Map<string, number[]>();
  for (const channel of state.channels) {
    const spare = valueIn(state, `channel/${channel}/spare`) as string | null;
    if (spare) spares.set(spare, [...(spares.get(spare) ?? []), channel]);
  }
  const rows: RowData[] = [];
  for (const box of state.desk!.boxes)
    for (let number = 1; number <= box.inputs; number++) {
      const socket = `input/${box.key}/${number}`;
      const name = socketName(state, socket);
      const entry = used.get(socket);
      if (!said(`${box.name} ${number} / ${name} / ${entry?.lines ?? ""}`)) continue;
      const feeds = entry?.channels ? entry.channels.split(", ").map(Number) : [];
      rows.push({
        socket,
        name,
        line: entry?.lines ?? "",
        colour: entry?.colour ?? "sand",
        letter: entry?.lines[0]?.toUpperCase() ?? "",
        phantom: valueIn(state, `${socket}/phantom`) === true,
        feeds,
        spareOf: spares.get(socket) ?? [],
      });
    }
  return rows;
}

const LINES = {
  backgroundImage: `linear-gradient(to right, var(--ink) 1px, transparent 1px)`,
  backgroundSize: `${CELL}px 100%`,
};

interface MarksProps {
  row: RowData;
  width: number;
  /** Where the cursor stands, if it is in this row. */
  cursor: Place | null;
  onClick: (event: MouseEvent<HTMLDivElement>) => void;
}

function Marks({ row, width, cursor, onClick }: MarksProps) {
  return (
    <div
      className="relative shrink-0 border-b border-ink cursor-cell"
      data-grid-row={row.socket}
      style={{ ...LINES, width, height: CELL }}
      onClick={onClick}
    >
      {row.feeds.map((channel) => (
        <span
          key={channel}
          id={`patch-${row.socket}-${channel}`}
          role="gridcell"
          aria-colindex={channel + 1}
          aria-label={`${row.name} feeds channel ${channel}${row.feeds.length > 1 ? ", as it does others" : ""}`}
          className={`drawn absolute top-[3px] rounded-sm grid place-items-center text-[11px] font-bold leading-none text-[#14121a] ${row.feeds.length > 1 ? "ring-2 ring-paper" : ""}`}
          style={{
            left: (channel - 1) * CELL + 4,
            width: CELL - 7,
            height: CELL - 7,
            background: `var(--mark-${row.colour})`,
          }}
        >
          {row.letter}
        </span>
      ))}
      {row.spareOf.map((channel) => (
        <span
          key={`spare ${channel}`}
          role="gridcell"
          aria-colindex={channel + 1}
          aria-label={`${row.name} is the spare of channel ${channel}`}
          className="absolute top-1 rounded-sm border-2 border-dashed border-soft"
          style={{ left: (channel - 1) * CELL + 5, width: CELL - 9, height: CELL - 9 }}
        />
      ))}
      {cursor !== null && (
        <span
          id={`patch-${cursor.row}-${cursor.column}`}
          role="gridcell"
          aria-selected
          aria-label={`${row.name}, channel ${cursor.column + 1}`}
          className="absolute top-0 border-2 border-sun rounded-sm"
          style={{ left: cursor.column * CELL + 1, width: CELL - 1, height: CELL - 1 }}
        />
      )}
    </div>
  );
}

const ColumnHead = memo(function ColumnHead({
  channel,
  left,
  here,
}: {
  channel: number;
  left: number;
  here: boolean;
}) {
  const name = useShow((state) => String(valueIn(state, `channel/${channel}/name`)));
  return (
    <span
      role="columnheader"
      title={name}
      className={`absolute bottom-0 flex items-end pb-1 text-[12px] leading-none ${here ? "bg-raise text-paper" : "text-soft"}`}
      style={{
        left,
        width: CELL,
        height: COLUMN_HEAD - 2,
        writingMode: "vertical-rl",
        transform: "rotate(180deg)",
        justifyContent: "flex-start",
      }}
    >
      <span dir="auto" className="truncate max-h-full">
        <span className="text-faint">{channel}</span> {name}
      </span>
    </span>
  );
});
