import { useVirtualizer } from "@tanstack/react-virtual";
import { type KeyboardEvent, useEffect, useRef, useState } from "react";
import { type ShowState, valueOf } from "../../data/show";
import { select, socketName, stripName, useLink, useShow } from "../../data/use";
import type { CellState, CellWay, Table, TableHead } from "../../data/types";
import { STATE_WORD, cellText, levelText } from "../../data/words";
import { ColourBar } from "../../ui/Panel";
import { type Mark, travelOf } from "../../ui/travel";
import { type Place, block, inBlock, stepped } from "./block";

const ROW_HEIGHT = 27;
const HEAD = 222;
const COLUMN = 59;
const TOP = 62;

interface Props {
  table: Table;
  /** Which of the table's columns are drawn. */
  columns: readonly number[];
}

/** The grid: one tab stop; arrows move, Shift or dragging takes several cells, typing edits all. */
export function Grid({ table, columns }: Props) {
  const link = useLink();
  const scroller = useRef<HTMLDivElement>(null);
  const [anchor, setAnchor] = useState<Place>({ row: 0, column: 0 });
  const [head, setHead] = useState<Place>({ row: 0, column: 0 });
  const [draft, setDraft] = useState<string | null>(null);
  const dragging = useRef(false);
  const selected = useShow((state) => state.selected);
  const rows = useVirtualizer({
    count: table.sources.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 12,
    // the head of the columns stays on top of the first rows
    paddingStart: TOP,
    scrollPaddingStart: TOP,
  });
  const chosen = block(anchor, head);

  // Something selected elsewhere (Find, another view) moves the cursor here.
  useEffect(() => {
    if (!selected) return;
    const row = table.sources.indexOf(selected.source);
    const column = columns.findIndex((index) => table.listeners[index] === selected.listener);
    if (row < 0 || column < 0 || (row === head.row && column === head.column)) return;
    setAnchor({ row, column });
    setHead({ row, column });
    rows.scrollToIndex(row);
    // Only a selection from outside may move the cursor; the cursor's own moves come from below.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [selected, table.sources, columns]);

  const goTo = (place: Place, extend: boolean) => {
    setHead(place);
    if (!extend) setAnchor(place);
    rows.scrollToIndex(place.row);
    select(table.sources[place.row]!, table.listeners[columns[place.column]!]!);
  };

  const ask = (typed: string) => {
    const cells = [];
    for (let row = chosen.top; row <= chosen.bottom; row++)
      for (let column = chosen.left; column <= chosen.right; column++)
        cells.push({ source: table.sources[row]!, listener: table.listeners[columns[column]!]! });
    void link.do({ action: "hear", cells, typed });
  };

  const onKey = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const next = stepped(head, event.key, table.sources.length, columns.length);
    if (next) {
      event.preventDefault();
      goTo(next, event.shiftKey);
    } else if (event.key === "Delete" || event.key === "Backspace") {
      event.preventDefault();
      ask("off");
    } else if (event.key === "Enter" || event.key === "F2") {
      event.preventDefault();
      setDraft("");
    } else if (/^[-+=0-9oO]$/.test(event.key)) {
      event.preventDefault();
      setDraft(event.key);
    }
  };

  const commit = (text: string) => {
    setDraft(null);
    if (text.trim()) ask(text);
    scroller.current?.focus();
  };

  return (
    <div
      ref={scroller}
      role="grid"
      aria-label="Who hears what"
      aria-rowcount={table.sources.length}
      aria-colcount={columns.length}
      aria-activedescendant={`cell-${head.row}-${head.column}`}
      tabIndex={0}
      onKeyDown={draft === null ? onKey : undefined}
      onPointerUp={() => (dragging.current = false)}
      onPointerLeave={() => (dragging.current = false)}
      className="scrolls flex-1 min-h-0 rounded-lg outline-offset-0"
    >
      <div className="relative" style={{ width: HEAD + columns.length * COLUMN, height: rows.getTotalSize() }}>
        <div className="sticky top-0 z-20 flex bg-ink pb-[2px]" role="row" style={{ height: TOP }}>
          <span className="sticky left-0 z-10 bg-ink shrink-0" style={{ width: HEAD }} />
          {columns.map((index, place) => (
            <ColumnHead
              key={table.listeners[index]}
              listener={table.listeners[index]!}
              head={table.heads[index]!}
              chosen={place === head.column}
            />
          ))}
        </div>
        <>
          {rows.getVirtualItems().map(({ index: row, start }) => (
            <div
              key={table.sources[row]}
              role="row"
              className="absolute left-0 flex"
              style={{ top: start, height: ROW_HEIGHT }}
            >
              <RowHead source={table.sources[row]!} chosen={row === head.row} />
              {columns.map((index, column) => {
                const here = row === head.row && column === head.column;
                return (
                  <Cell
                    key={table.listeners[index]}
                    id={`cell-${row}-${column}`}
                    label={`${table.sources[row]} ${table.listeners[index]}`}
                    levelDb={table.level_db[row]?.[index] ?? null}
                    state={table.state[row]?.[index] ?? "unrouted"}
                    way={table.way[row]?.[index] ?? "through"}
                    here={here}
                    chosen={inBlock(chosen, row, column)}
                    draft={here ? draft : null}
                    onDraft={setDraft}
                    onCommit={commit}
                    onDown={(extend) => {
                      dragging.current = true;
                      setDraft(null);
                      goTo({ row, column }, extend);
                    }}
                    onOver={() => dragging.current && goTo({ row, column }, true)}
                    onEdit={() => setDraft("")}
                  />
                );
              })}
            </div>
          ))}
        </>
      </div>
    </div>
  );
}

function ColumnHead({ listener, head, chosen }: { listener: string; head: TableHead; chosen: boolean }) {
  const name = useShow((state) => stripName(state, listener));
  const colour = useShow((state) =>
    /^(mix|group|matrix)\//.test(listener) ? String(valueOf(state, `${listener}/colour`)) : "sand",
  );
  return (
    <div
      role="columnheader"
      title={name}
      className={`shrink-0 px-[3px] pt-1.5 pb-1 mr-[2px] rounded-t-lg border-t-[3px] text-[11px] tracking-tight leading-[14px] ${chosen ? "bg-raise" : "bg-floor"}`}
      style={{ width: COLUMN - 2, borderColor: `var(--strip-${colour})` }}
    >
      <span className="block font-semibold h-7 overflow-hidden hyphens-auto break-words">{name}</span>
      <span className={`block mt-1 text-[11px] whitespace-nowrap ${head.patched ? "text-faint" : "text-coral font-semibold"}`}>
        {head.about}
      </span>
    </div>
  );
}

/** What feeds a source now: its socket, or its spare while it is switched to that. */
function sourceText(state: ShowState, source: string): string {
  const spare = source.startsWith("channel/") && valueOf(state, `${source}/on_spare`) === true;
  const fedBy = valueOf(state, `${source}/${spare ? "spare" : "source"}`) as string | null;
  return fedBy && spare ? `${socketName(state, fedBy)} spare` : socketName(state, fedBy);
}

function RowHead({ source, chosen }: { source: string; chosen: boolean }) {
  const name = useShow((state) => stripName(state, source));
  const colour = useShow((state) => String(valueOf(state, `${source}/colour`)));
  const socket = useShow((state) => sourceText(state, source));
  return (
    <div
      role="rowheader"
      title={name}
      className={`sticky left-0 z-10 shrink-0 flex items-center gap-1.5 mb-[2px] mr-[2px] rounded-md pr-2 ${chosen ? "bg-raise" : "bg-floor"}`}
      style={{ width: HEAD - 2, height: ROW_HEIGHT - 2 }}
    >
      <ColourBar colour={colour} />
      <span className="w-[18px] text-right text-faint text-[12px]">{source.startsWith("return/") && "R"}{source.split("/")[1]}</span>
      <span className="flex-1 truncate">{name}</span>
      <span className={`text-[12px] whitespace-nowrap ${socket ? "text-faint" : "text-coral"}`}>{socket || "no source"}</span>
    </div>
  );
}

interface CellProps {
  id: string;
  label: string;
  levelDb: number | null;
  state: CellState;
  way: CellWay;
  here: boolean;
  chosen: boolean;
  draft: string | null;
  onDraft: (text: string | null) => void;
  onCommit: (text: string) => void;
  onDown: (extend: boolean) => void;
  onOver: () => void;
  onEdit: () => void;
}

const NO_MARKS: readonly Mark[] = [];
/** Before or after the fader of the source, or by way of another strip: a shape for each. */
const WAY_MARK: Record<CellWay, string> = {
  before: "bg-sea w-1.5 h-1.5 rounded-full",
  after: "bg-sea w-0.5 h-3",
  through: "border-[1.5px] border-sea w-1.5 h-1.5 rounded-full",
};

function Cell(props: CellProps) {
  const { levelDb, state, here, chosen, draft } = props;
  const marks = useShow((show) => (show.desk?.fader_marks as Mark[] | undefined) ?? NO_MARKS);
  const blocked = state === "muted" || state === "no_source" || state === "no_output" || state === "cancelled";
  const ring = here ? "border-2 border-sun" : chosen ? "border border-sun/80" : "";
  return (
    <div
      id={props.id}
      role="gridcell"
      aria-label={`${props.label}: ${state === "heard" ? `${levelText(levelDb)} dB` : STATE_WORD[state] || "not sent"}`}
      aria-selected={chosen}
      data-cell={props.label}
      data-state={state}
      className={`relative shrink-0 mr-[2px] rounded-md overflow-hidden text-right text-[13px] leading-[25px] pr-1.5 cursor-cell select-none ${
        blocked ? "hatch text-coral" : state === "heard" ? "bg-quiet" : "bg-floor"
      }`}
      style={{ width: COLUMN - 2, height: ROW_HEIGHT - 2 }}
      onPointerDown={(event) => {
        if (event.button === 0) props.onDown(event.shiftKey);
      }}
      onPointerEnter={props.onOver}
      onDoubleClick={props.onEdit}
    >
      {state === "heard" && (
        <>
          <span
            className="absolute inset-y-0 left-0 bg-heard"
            style={{ width: `${travelOf(levelDb, marks) * 100}%` }}
            aria-hidden
          />
          <span
            className={`absolute left-1.5 top-1/2 -translate-y-1/2 ${WAY_MARK[props.way]}`}
            aria-hidden
          />
          <span className="relative">{cellText(levelDb)}</span>
        </>
      )}
      {state === "down" && <span className="text-faint">down</span>}
      {blocked && (
        <span className={`bg-card/70 rounded px-0.5 ${state === "no_source" || state === "cancelled" ? "text-[10px]" : "text-[12px]"}`}>
          {STATE_WORD[state]}
        </span>
      )}
      {state === "unrouted" && <span className="text-faint/60 pr-4" aria-hidden>·</span>}
      {ring && <span className={`absolute inset-0 rounded-md ${ring}`} aria-hidden />}
      {draft !== null && <CellInput draft={draft} onDraft={props.onDraft} onCommit={props.onCommit} />}
    </div>
  );
}

function CellInput({
  draft,
  onDraft,
  onCommit,
}: Pick<CellProps, "onDraft" | "onCommit"> & { draft: string }) {
  return (
    <input
      autoFocus
      aria-label="Level to arrive"
      className="absolute inset-0 w-full bg-raise text-paper text-right px-1.5 text-[13px] select-text"
      value={draft}
      onChange={(event) => onDraft(event.currentTarget.value)}
      onBlur={() => onDraft(null)}
      onPointerDown={(event) => event.stopPropagation()}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === "Enter") onCommit(draft);
        if (event.key === "Escape") onCommit("");
      }}
    />
  );
}
