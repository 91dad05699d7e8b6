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
import { GridFrame } from "../../ui/grid/GridFrame";
import { placeUnder, useGrid } from "../../ui/grid/useGrid";
import { usePhone, useRowHeight } from "../../ui/media";
import type { Mark } from "../../ui/travel";
import { COLUMN, ColumnHead, type DrawnColumn, GridRow, TOP } from "./GridRow";

interface Props {
  table: Table;
  /** Which of the table's columns are drawn. */
  columns: readonly number[];
}

const NO_MARKS: readonly Mark[] = [];

/**
 * The grid: one tab stop. Arrows move; Shift or dragging takes several cells, a head (or Shift+Space,
 * Ctrl+Space) a whole row or column; typing edits all that is taken.
 */
export function Grid({ table, columns }: Props) {
  const link = useLink();
  const [draft, setDraft] = useState<string | null>(null);
  const dragging = useRef(false);
  const selected = useShow((state) => state.selected);
  const marks = useShow((state) => (state.desk?.fader_marks as Mark[] | undefined) ?? NO_MARKS);
  const height = useRowHeight(27);
  const headWidth = usePhone() ? 150 : 222;
  // a row taken by its head takes the sends of its source: its fader, which the house rides, stays
  const sent = useMemo(
    () => columns.flatMap((index, place) => (isOf(table.listeners[index]!, "mix") ? [place] : [])),
    [columns, table.listeners],
  );
  const counts = [table.sources.length, columns.length] as const;
  const grid = useGrid({
    rows: counts[0],
    columns: counts[1],
    height,
    width: COLUMN,
    headWidth,
    headHeight: TOP,
    ofRows: sent,
    byColumns: true,
    onGo: ({ row, column }) => select(table.sources[row]!, table.listeners[columns[column]!]!),
  });
  const { head, taken } = grid;

  const inSight = grid.columns.getVirtualItems();
  const drawn = useMemo<DrawnColumn[]>(
    () =>
      inSight.flatMap(({ index: place, start }) =>
        place < columns.length ? [{ index: columns[place]!, place, left: start }] : [],
      ),
    [inSight, columns],
  );

  // Something selected elsewhere (Find, another view) moves the cursor here.
  // Only that may move the cursor; the cursor's own moves come from below.
  const follow = useEffectEvent((to: NonNullable<typeof selected>) => {
    const row = table.sources.indexOf(to.source);
    const column = columns.findIndex((index) => table.listeners[index] === to.listener);
    if (row < 0 || column < 0 || (row === head.row && column === head.column)) return;
    grid.follow({ row, column });
  });
  useEffect(() => {
    if (selected) follow(selected);
  }, [selected, table.sources, columns]);

  const ask = (typed: string) => {
    const cells = [];
    for (let row = taken.top; row <= taken.bottom; row++)
      for (const column of taken.columns)
        cells.push({ source: table.sources[row]!, listener: table.listeners[columns[column]!]! });
    void link.do({ action: "hear", cells, typed });
  };

  const onKey = (event: KeyboardEvent) => {
    if (grid.walk(event) || event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === "Delete" || event.key === "Backspace") ask("off");
    else if (event.key === "Enter" || event.key === "F2") setDraft("");
    else if (/^[-+=0-9oOuUdD]$/.test(event.key)) setDraft(event.key);
    else return;
    event.preventDefault();
  };

  const { scroller } = grid;
  const latest = useRef(ask);
  latest.current = ask;
  const commit = useCallback(
    (text: string) => {
      setDraft(null);
      if (text.trim()) latest.current(text);
      scroller.current?.focus();
    },
    [scroller],
  );

  const onDown = (event: PointerEvent) => {
    const place = placeUnder(event.target);
    if (event.button !== 0 || grid.takeByHead(event) || !place) return;
    // a finger that lands here may be about to scroll: it takes one cell, and drags none
    dragging.current = event.pointerType !== "touch";
    setDraft(null);
    grid.goTo(place, event.shiftKey);
  };
  const onOver = (event: PointerEvent) => {
    const place = dragging.current && placeUnder(event.target);
    if (place && (place.row !== head.row || place.column !== head.column)) grid.goTo(place, true);
  };
  const onDoubleClick = (event: MouseEvent) => placeUnder(event.target) && setDraft("");

  return (
    <GridFrame
      grid={grid}
      label="Who hears what"
      cellId="cell"
      counts={counts}
      headWidth={headWidth}
      headHeight={TOP}
      headClass="bg-ink"
      className="outline-offset-0"
      onKeyDown={draft === null ? onKey : undefined}
      onPointerDown={onDown}
      onPointerOver={onOver}
      onPointerUp={() => {
        dragging.current = false;
      }}
      onDoubleClick={onDoubleClick}
      corner={<span className="sr-only">Source</span>}
      heads={drawn.map(({ index, place, left }) => (
        <ColumnHead
          key={table.listeners[index]}
          listener={table.listeners[index]!}
          head={table.heads[index]!}
          place={place}
          left={left}
          chosen={place === head.column}
        />
      ))}
      row={({ index: row, start }) => (
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
      )}
    />
  );
}
