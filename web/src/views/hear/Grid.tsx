import { useVirtualizer } from "@tanstack/react-virtual";
import {
  type KeyboardEvent,
  type MouseEvent,
  type PointerEvent,
  useCallback,
  useEffect,
  useEffectEvent,
  useMemo,
  useRef,
  useState,
} from "react";
import { isOf } from "../../data/address";
import type { Table } from "../../data/types";
import { select, useLink, useShow } from "../../data/use";
import { usePhone, useRowHeight } from "../../ui/media";
import type { Mark } from "../../ui/travel";
import { block, type Place, stepped, takenIn, type Whole, within } from "./block";
import { COLUMN, ColumnHead, type DrawnColumn, GridRow, TOP } from "./GridRow";

interface Props {
  table: Table;
  /** Which of the table's columns are drawn. */
  columns: readonly number[];
}

type Pair = [Place, Place];

const NO_MARKS: readonly Mark[] = [];
const START: Place = { row: 0, column: 0 };

/**
 * The grid: one tab stop. Arrows move; Shift or dragging takes several cells, a head (or Shift+Space,
 * Ctrl+Space) a whole row or column; typing edits all that is taken.
 */
export function Grid({ table, columns }: Props) {
  const link = useLink();
  const scroller = useRef<HTMLDivElement>(null);
  const [from, setAnchor] = useState(START);
  const [to, setHead] = useState(START);
  // fewer listeners or sources may be drawn than a moment ago: what is typed needs a cell
  const [anchor, head] = useMemo(
    () => [from, to].map((place) => within(place, table.sources.length, columns.length)) as Pair,
    [from, to, table.sources.length, columns.length],
  );
  const [whole, setWhole] = useState<Whole>(null);
  const [draft, setDraft] = useState<string | null>(null);
  const dragging = useRef(false);
  const selected = useShow((state) => state.selected);
  const marks = useShow((state) => (state.desk?.fader_marks as Mark[] | undefined) ?? NO_MARKS);
  const height = useRowHeight(27);
  const headWidth = usePhone() ? 150 : 222;
  const rows = useVirtualizer({
    count: table.sources.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => height,
    overscan: 4,
    // the head of the columns stays on top of the first rows, that of the rows left of the columns
    paddingStart: TOP,
    scrollPaddingStart: TOP,
  });
  const across = useVirtualizer({
    horizontal: true,
    count: columns.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => COLUMN,
    overscan: 2,
    paddingStart: headWidth,
    scrollPaddingStart: headWidth,
  });
  useEffect(() => rows.measure(), [rows, height]);
  useEffect(() => across.measure(), [across, headWidth]);

  const inSight = across.getVirtualItems();
  const drawn = useMemo<DrawnColumn[]>(
    () =>
      inSight.flatMap(({ index: place, start }) =>
        place < columns.length ? [{ index: columns[place]!, place, left: start }] : [],
      ),
    [inSight, columns],
  );
  // a row taken by its head takes the sends of its source: its fader, which the house rides, stays
  const sent = useMemo(
    () => columns.flatMap((index, place) => (isOf(table.listeners[index]!, "mix") ? [place] : [])),
    [columns, table.listeners],
  );
  const taken = useMemo(
    () => takenIn(block(anchor, head), whole, table.sources.length, columns.length, sent),
    [anchor, head, whole, table.sources.length, columns.length, sent],
  );

  // Something selected elsewhere (Find, another view) moves the cursor here.
  // Only that may move the cursor; the cursor's own moves come from below.
  const follow = useEffectEvent((to: NonNullable<typeof selected>) => {
    const row = table.sources.indexOf(to.source);
    const column = columns.findIndex((index) => table.listeners[index] === to.listener);
    if (row < 0 || column < 0 || (row === head.row && column === head.column)) return;
    setAnchor({ row, column });
    setHead({ row, column });
    setWhole(null);
    rows.scrollToIndex(row);
    across.scrollToIndex(column);
  });
  useEffect(() => {
    if (selected) follow(selected);
  }, [selected, table.sources, columns]);

  const goTo = (place: Place, extend: boolean, wholly: Whole = null) => {
    setHead(place);
    if (!extend) setAnchor(place);
    setWhole(wholly);
    rows.scrollToIndex(place.row);
    across.scrollToIndex(place.column);
    select(table.sources[place.row]!, table.listeners[columns[place.column]!]!);
  };

  const ask = (typed: string) => {
    const cells = [];
    for (let row = taken.top; row <= taken.bottom; row++)
      for (const column of taken.columns)
        cells.push({ source: table.sources[row]!, listener: table.listeners[columns[column]!]! });
    void link.do({ action: "hear", cells, typed });
  };

  const onKey = (event: KeyboardEvent) => {
    if (event.key === " " && (event.shiftKey || event.ctrlKey)) {
      event.preventDefault();
      setWhole(event.shiftKey ? "row" : "column");
      return;
    }
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
    } else if (event.key === "Escape" && whole) {
      event.preventDefault();
      setWhole(null);
    } else if (/^[-+=0-9oOuUdD]$/.test(event.key)) {
      event.preventDefault();
      setDraft(event.key);
    }
  };

  const latest = useRef(ask);
  latest.current = ask;
  const commit = useCallback((text: string) => {
    setDraft(null);
    if (text.trim()) latest.current(text);
    scroller.current?.focus();
  }, []);

  const onDown = (event: PointerEvent) => {
    const under = event.target as HTMLElement;
    const place = placeUnder(under);
    if (event.button !== 0) return;
    if (place) {
      // a finger that lands here may be about to scroll: it takes one cell, and drags none
      dragging.current = event.pointerType !== "touch";
      setDraft(null);
      goTo(place, event.shiftKey);
      return;
    }
    const row = under.closest<HTMLElement>("[data-row-head]")?.dataset.rowHead;
    const column = under.closest<HTMLElement>("[data-column-head]")?.dataset.columnHead;
    if (row !== undefined) goTo({ row: Number(row), column: head.column }, false, "row");
    else if (column !== undefined) goTo({ row: head.row, column: Number(column) }, false, "column");
  };
  const onOver = (event: PointerEvent) => {
    const place = dragging.current && placeUnder(event.target as HTMLElement);
    if (place && (place.row !== head.row || place.column !== head.column)) goTo(place, true);
  };
  const onDoubleClick = (event: MouseEvent) =>
    placeUnder(event.target as HTMLElement) && setDraft("");

  return (
    <div
      ref={scroller}
      role="grid"
      aria-label="Who hears what"
      aria-rowcount={table.sources.length + 1}
      aria-colcount={columns.length + 1}
      aria-multiselectable
      aria-activedescendant={`cell-${head.row}-${head.column}`}
      tabIndex={0}
      onKeyDown={draft === null ? onKey : undefined}
      onPointerDown={onDown}
      onPointerOver={onOver}
      onPointerUp={() => (dragging.current = false)}
      onPointerLeave={() => (dragging.current = false)}
      onDoubleClick={onDoubleClick}
      className="scrolls flex-1 min-h-0 short:min-h-72 rounded-lg outline-offset-0"
    >
      <div
        className="relative"
        role="presentation"
        style={{ width: across.getTotalSize(), height: rows.getTotalSize() }}
      >
        <div
          className="sticky top-0 z-20 bg-ink"
          role="row"
          aria-rowindex={1}
          style={{ height: TOP }}
        >
          <span
            role="columnheader"
            aria-colindex={1}
            className="sticky left-0 z-10 inline-block bg-ink text-[12px] text-faint"
            style={{ width: headWidth - 2, height: TOP - 2 }}
          >
            <span className="sr-only">Source</span>
          </span>
          {drawn.map(({ index, place, left }) => (
            <ColumnHead
              key={table.listeners[index]}
              listener={table.listeners[index]!}
              head={table.heads[index]!}
              place={place}
              left={left}
              chosen={place === head.column}
            />
          ))}
        </div>
        {rows
          .getVirtualItems()
          .map(({ index: row, start }) =>
            row < table.sources.length ? (
              <GridRow
                key={table.sources[row]}
                source={table.sources[row]!}
                row={row}
                top={start}
                height={height}
                headWidth={headWidth}
                columns={drawn}
                listeners={table.listeners}
                levels={table.level_db[row]!}
                states={table.state[row]!}
                ways={table.way[row]!}
                marks={marks}
                cursor={row === head.row ? head.column : null}
                taken={row >= taken.top && row <= taken.bottom ? taken.set : null}
                draft={row === head.row ? draft : null}
                onDraft={setDraft}
                onCommit={commit}
              />
            ) : null,
          )}
      </div>
    </div>
  );
}

function placeUnder(under: HTMLElement): Place | null {
  const place = under.closest<HTMLElement>("[data-place]")?.dataset.place;
  if (!place) return null;
  const [row, column] = place.split(" ").map(Number) as [number, number];
  return { row, column };
}
