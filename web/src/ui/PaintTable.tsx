import {
  type KeyboardEvent,
  type MouseEvent,
  memo,
  type PointerEvent,
  type ReactNode,
  useEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import { thingOf } from "../data/address";
import { colourOf, type ShowState, store, valueIn } from "../data/show";
import { follow } from "../data/subject";
import { stripName, useShow } from "../data/use";
import { GridFrame } from "./grid/GridFrame";
import { placeUnder, useGrid } from "./grid/useGrid";
import { usePhone, useRowHeight } from "./media";
import { ColourBar } from "./Panel";
import { InRow, useRows } from "./reach";

/** What a cell shows: a member, one by way of another, one that rests, an empty cell, one that painting leaves alone, or no cell at all. */
export type CellMark = "m" | "r" | "z" | "." | "o" | "-";

/** Whether a cell can be painted. */
const isOpen = (mark: string | undefined): boolean => mark !== "-" && mark !== "o";

export interface PaintTable {
  label: string;
  rows: readonly string[];
  columns: readonly string[];
  /** Width of a column, and height of the heads, in px. */
  width: number;
  headHeight: number;
  headWord: string;
  head: (column: string) => ReactNode;
  /** At the right of a row's name. */
  rowEnd: (strip: string) => ReactNode;
  /** A mark a column, one letter each. */
  marks: (state: ShowState, strip: string, columns: readonly string[]) => string;
  /** Whether a cell `<strip>/<column>` is on, where that is no switch of its own. */
  isOn?: (cell: string) => boolean;
  /** What the marks are called. */
  words: Readonly<Partial<Record<CellMark, string>>>;
  draw: (mark: CellMark, column: string) => ReactNode;
  /** Cells as `<strip>/<column>` that are to be on, or off. */
  onGive: (cells: readonly string[], on: boolean) => void;
  /** The rows that are taken, when they become others. */
  onTake?: (rows: readonly string[]) => void;
  /** Keys of the table's own, on the rows that are taken; true: it was one. */
  onOwnKey?: (event: KeyboardEvent, rows: readonly string[]) => boolean;
}

/**
 * Strips against something that they can be in: switches `<strip>/<column>/on`, painted by dragging,
 * or by arrows and Space. A row is taken by its head.
 */
export function PaintTable(props: PaintTable) {
  const { rows, columns, width, headHeight } = props;
  const phone = usePhone();
  const height = useRowHeight(32);
  const headWidth = phone ? 148 : 216;
  const grid = useGrid({
    rows: rows.length,
    columns: columns.length,
    height,
    width,
    headWidth,
    headHeight,
    onGo: ({ row }) => follow(rows[row] ?? ""),
  });
  const { head, taken } = grid;
  // of many columns those in sight are drawn, and some beside them
  const inSight = grid.columns.getVirtualItems();
  const first = inSight[0]?.index ?? 0;
  const last = inSight.at(-1)?.index ?? -1;
  const drawn = useMemo(() => columns.slice(first, last + 1), [columns, first, last]);
  const heads = useRows(columns, { across: true });
  // of a click not every browser says what made it: the press before it did
  const finger = useRef(false);
  const painting = useRef<{ on: boolean; cells: Set<string> } | null>(null);
  const [painted, setPainted] = useState<ReadonlySet<string>>(new Set());
  const { onTake } = props;
  const takenRows = rows.slice(taken.top, taken.bottom + 1).join("\n");
  useEffect(() => onTake?.(takenRows.split("\n").filter(Boolean)), [onTake, takenRows]);

  const isOn = props.isOn ?? ((cell: string) => valueIn(store.getState(), `${cell}/on`) === true);
  const markAt = (strip: string, column: string): string =>
    props.marks(store.getState(), strip, [column]);
  const give = (cells: Iterable<string>, on: boolean) => {
    const all = [...cells];
    if (all.length > 0) props.onGive(all, on);
  };
  const cellAt = (row: number, column: number) => `${rows[row]}/${columns[column]}`;
  const toggle = () => {
    const cells: string[] = [];
    for (let row = taken.top; row <= taken.bottom; row++)
      for (const column of taken.columns)
        if (isOpen(markAt(rows[row]!, columns[column]!))) cells.push(cellAt(row, column));
    const first = cells.find((cell) => cell === cellAt(head.row, head.column)) ?? cells[0];
    if (first) give(cells, !isOn(first));
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.target !== event.currentTarget) return; // a field in a head has the hand
    if (grid.walk(event) || event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === " " || event.key === "Enter") toggle();
    else if (!props.onOwnKey?.(event, takenRows.split("\n"))) return;
    event.preventDefault();
  };
  const onDown = (event: PointerEvent) => {
    const place = placeUnder(event.target);
    if (event.button !== 0 || grid.takeByHead(event) || !place) return;
    const key = cellAt(place.row, place.column);
    const on = !isOn(key);
    grid.goTo(place);
    // a finger may be about to scroll: it takes one cell, and only if it does not move
    finger.current = event.pointerType === "touch";
    if (finger.current) return;
    painting.current = { on, cells: new Set([key]) };
    setPainted(new Set([key]));
  };
  const onOver = (event: PointerEvent) => {
    const place = painting.current && placeUnder(event.target);
    if (!painting.current || !place) return;
    const key = cellAt(place.row, place.column);
    if (painting.current.cells.has(key)) return;
    painting.current.cells.add(key);
    setPainted(new Set(painting.current.cells));
  };
  const onUp = () => {
    if (!painting.current) return;
    give(painting.current.cells, painting.current.on);
    painting.current = null;
    setPainted(new Set());
  };
  const onClick = (event: MouseEvent) => {
    const place = finger.current && placeUnder(event.target);
    if (!place) return;
    const key = cellAt(place.row, place.column);
    give([key], !isOn(key));
  };

  return (
    <GridFrame
      grid={grid}
      label={props.label}
      cellId="member"
      counts={[rows.length, columns.length]}
      headWidth={headWidth}
      headHeight={headHeight}
      headClass="bg-floor border-b border-line"
      className="border border-line bg-floor"
      onKeyDown={onKey}
      onPointerDown={onDown}
      onPointerOver={onOver}
      onPointerUp={onUp}
      onClick={onClick}
      corner={props.headWord}
      heads={
        <>
          <span className="shrink-0" style={{ width: first * width }} aria-hidden />
          {drawn.map((column) => (
            <InRow key={column} of={column} rows={heads}>
              {props.head(column)}
            </InRow>
          ))}
        </>
      }
      headsHand={heads.hand}
      row={({ index, start }) => (
        <Row
          key={rows[index]}
          strip={rows[index]!}
          index={index}
          top={start}
          height={height}
          headWidth={headWidth}
          width={width}
          columns={drawn}
          first={first}
          count={columns.length}
          rowEnd={props.rowEnd}
          marks={props.marks}
          words={props.words}
          draw={props.draw}
          painted={painted}
          here={index >= taken.top && index <= taken.bottom ? taken.set : null}
          cursor={index === head.row ? head.column : null}
        />
      )}
    />
  );
}

interface RowProps extends Pick<PaintTable, "columns" | "rowEnd" | "marks" | "words" | "draw"> {
  strip: string;
  index: number;
  top: number;
  height: number;
  headWidth: number;
  width: number;
  painted: ReadonlySet<string>;
  here: ReadonlySet<number> | null;
  cursor: number | null;
  /** Which column the first of those drawn is, and how many there are. */
  first: number;
  count: number;
}

function numberWord(strip: string): string {
  const { kind, number } = thingOf(strip);
  if (!number) return "";
  return kind === "channel" ? `${number}` : `${kind === "dca" ? "DCA" : kind} ${number}`;
}

const Row = memo(function Row(props: RowProps) {
  const { strip, index, columns, width } = props;
  const name = useShow((state) => stripName(state, strip));
  const colour = useShow((state) => colourOf(state, strip));
  const marks = useShow((state) => props.marks(state, strip, columns));
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      className="absolute left-0 flex"
      style={{ top: props.top, height: props.height }}
    >
      <div
        role="rowheader"
        data-row-head={index}
        className={`sticky left-0 z-10 flex gap-2 items-center pr-2 shrink-0 border-b border-ink ${props.cursor !== null || props.here?.size === props.count ? "bg-raise" : "bg-card"}`}
        style={{ width: props.headWidth }}
      >
        <ColourBar colour={colour} />
        <span dir="auto" className="truncate flex-1 min-w-0">
          {name} <span className="text-faint text-[12px]">{numberWord(strip)}</span>
        </span>
        {props.rowEnd(strip)}
      </div>
      <span className="shrink-0" style={{ width: props.first * width }} aria-hidden />
      {columns.map((column, turn) => {
        const place = props.first + turn;
        const key = `${strip}/${column}`;
        const mark = marks[turn] as CellMark;
        const none = !isOpen(mark);
        const selected = props.here?.has(place) === true;
        return (
          <span
            key={column}
            id={`member-${index}-${place}`}
            role="gridcell"
            aria-colindex={place + 2}
            aria-selected={selected}
            aria-label={`${name}, ${props.words[mark]}`}
            data-member={none ? undefined : key}
            data-place={none ? undefined : `${index} ${place}`}
            className={`grid place-items-center border-b border-r border-ink ${none ? "" : "cursor-cell"} ${props.painted.has(key) ? "bg-raise" : selected ? "bg-card" : ""} ${props.cursor === place ? "outline-2 -outline-offset-2 outline-sun" : ""}`}
            style={{ width }}
          >
            {none ? (
              <span className="text-faint" aria-hidden>
                {mark === "-" ? "–" : ""}
              </span>
            ) : (
              props.draw(mark, column)
            )}
          </span>
        );
      })}
    </div>
  );
});
