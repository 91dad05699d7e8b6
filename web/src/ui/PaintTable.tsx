import { useVirtualizer } from "@tanstack/react-virtual";
import {
  type KeyboardEvent,
  type MouseEvent,
  memo,
  type PointerEvent,
  type ReactNode,
  useEffect,
  useRef,
  useState,
} from "react";
import { thingOf } from "../data/address";
import { colourOf, type ShowState, store, valueIn } from "../data/show";
import { stripName, useShow } from "../data/use";
import { type Block, block, type Place, stepped } from "../views/hear/block";
import { usePhone, useRowHeight } from "./media";
import { ColourBar } from "./Panel";

/** What a cell shows: a member, one by way of another, one that rests, an empty cell, or no cell at all. */
export type CellMark = "m" | "r" | "z" | "." | "-";

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
  onLetter?: (key: string, rows: readonly string[]) => boolean;
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
  const scroller = useRef<HTMLDivElement>(null);
  const [anchor, setAnchor] = useState<Place>({ row: 0, column: 0 });
  const [head, setHead] = useState<Place>({ row: 0, column: 0 });
  // of a click not every browser says what made it: the press before it did
  const finger = useRef(false);
  const painting = useRef<{ on: boolean; cells: Set<string> } | null>(null);
  const [painted, setPainted] = useState<ReadonlySet<string>>(new Set());
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => height,
    overscan: 6,
    paddingStart: headHeight,
    scrollPaddingStart: headHeight,
  });
  useEffect(() => virtual.measure(), [virtual, height, headHeight]);
  const taken = block(anchor, head);
  const { onTake } = props;
  const takenRows = rows.slice(taken.top, taken.bottom + 1).join("\n");
  useEffect(() => onTake?.(takenRows.split("\n").filter(Boolean)), [onTake, takenRows]);

  const goTo = (place: Place, extend: boolean) => {
    setHead(place);
    if (!extend) setAnchor(place);
    virtual.scrollToIndex(place.row);
    scroller.current
      ?.querySelector(`[data-column-head="${columns[place.column]}"]`)
      ?.scrollIntoView({ inline: "nearest", block: "nearest" });
  };
  const isOn = props.isOn ?? ((cell: string) => valueIn(store.getState(), `${cell}/on`) === true);
  const markAt = (strip: string, column: string): string =>
    props.marks(store.getState(), strip, [column]);
  const give = (cells: Iterable<string>, on: boolean) => {
    const all = [...cells];
    if (all.length > 0) props.onGive(all, on);
  };
  const toggle = (area: Block) => {
    const cells: string[] = [];
    for (const strip of rows.slice(area.top, area.bottom + 1))
      for (const column of columns.slice(area.left, area.right + 1))
        if (markAt(strip, column) !== "-") cells.push(`${strip}/${column}`);
    const first =
      cells.find((cell) => cell === `${rows[head.row]}/${columns[head.column]}`) ?? cells[0];
    if (first) give(cells, !isOn(first));
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.target !== event.currentTarget) return; // a field in a head has the hand
    const next = stepped(head, event.key, rows.length, columns.length);
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (next) {
      event.preventDefault();
      goTo(next, event.shiftKey);
    } else if (event.key === " " || event.key === "Enter") {
      event.preventDefault();
      toggle(taken);
    } else if (props.onLetter?.(event.key.toLowerCase(), takenRows.split("\n"))) {
      event.preventDefault();
    }
  };
  const onDown = (event: PointerEvent) => {
    const row = rowUnder(event.target);
    if (row !== null && event.button === 0) {
      setHead({ row, column: columns.length - 1 });
      setAnchor({ row: event.shiftKey ? anchor.row : row, column: 0 });
      return;
    }
    const cell = cellUnder(event.target);
    if (!cell || event.button !== 0) return;
    const on = !isOn(cell.key);
    setAnchor(cell.place);
    setHead(cell.place);
    // a finger may be about to scroll: it takes one cell, and only if it does not move
    finger.current = event.pointerType === "touch";
    if (finger.current) return;
    painting.current = { on, cells: new Set([cell.key]) };
    setPainted(new Set([cell.key]));
  };
  const onOver = (event: PointerEvent) => {
    const cell = painting.current && cellUnder(event.target);
    if (!painting.current || !cell || painting.current.cells.has(cell.key)) return;
    painting.current.cells.add(cell.key);
    setPainted(new Set(painting.current.cells));
  };
  const onUp = () => {
    if (!painting.current) return;
    give(painting.current.cells, painting.current.on);
    painting.current = null;
    setPainted(new Set());
  };
  const onClick = (event: MouseEvent) => {
    const cell = finger.current && cellUnder(event.target);
    if (cell) give([cell.key], !isOn(cell.key));
  };

  return (
    <div
      ref={scroller}
      role="grid"
      aria-label={props.label}
      aria-rowcount={rows.length + 1}
      aria-colcount={columns.length + 1}
      aria-multiselectable
      aria-activedescendant={`member-${head.row}-${head.column}`}
      tabIndex={0}
      data-grid
      onKeyDown={onKey}
      onPointerDown={onDown}
      onPointerOver={onOver}
      onPointerUp={onUp}
      onPointerLeave={onUp}
      onClick={onClick}
      className="scrolls flex-1 min-h-0 short:min-h-72 rounded-lg border border-line bg-floor"
    >
      <div
        className="relative"
        role="presentation"
        style={{ width: headWidth + columns.length * width, height: virtual.getTotalSize() }}
      >
        <div
          role="row"
          aria-rowindex={1}
          className="sticky top-0 z-20 flex bg-floor border-b border-line"
          style={{ height: headHeight }}
        >
          <span
            role="columnheader"
            className="sticky left-0 z-10 bg-floor shrink-0 flex items-end px-2 pb-1 text-faint text-[12px]"
            style={{ width: headWidth }}
          >
            {props.headWord}
          </span>
          {columns.map((column) => props.head(column))}
        </div>
        {virtual
          .getVirtualItems()
          .map(({ index, start }) =>
            index < rows.length ? (
              <Row
                key={rows[index]}
                strip={rows[index]!}
                index={index}
                top={start}
                height={height}
                headWidth={headWidth}
                width={width}
                columns={columns}
                rowEnd={props.rowEnd}
                marks={props.marks}
                words={props.words}
                draw={props.draw}
                painted={painted}
                here={index >= taken.top && index <= taken.bottom ? taken : null}
                cursor={index === head.row ? head.column : null}
              />
            ) : null,
          )}
      </div>
    </div>
  );
}

function rowUnder(target: EventTarget): number | null {
  const element = target as HTMLElement;
  if (element.closest("input, button, a")) return null;
  const head = element.closest<HTMLElement>("[data-row-head]");
  return head ? Number(head.dataset.rowHead) : null;
}

function cellUnder(target: EventTarget): { key: string; place: Place } | null {
  const cell = (target as HTMLElement).closest<HTMLElement>("[data-member]");
  if (!cell) return null;
  const [row, column] = cell.id.split("-").slice(1).map(Number);
  return { key: cell.dataset.member!, place: { row: row!, column: column! } };
}

interface RowProps extends Pick<PaintTable, "columns" | "rowEnd" | "marks" | "words" | "draw"> {
  strip: string;
  index: number;
  top: number;
  height: number;
  headWidth: number;
  width: number;
  painted: ReadonlySet<string>;
  here: Block | null;
  cursor: number | null;
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
        className={`sticky left-0 z-10 flex gap-2 items-center pr-2 shrink-0 border-b border-ink ${props.cursor !== null || (props.here && props.here.left === 0 && props.here.right === columns.length - 1) ? "bg-raise" : "bg-card"}`}
        style={{ width: props.headWidth }}
      >
        <ColourBar colour={colour} />
        <span className="truncate flex-1 min-w-0">
          {name} <span className="text-faint text-[12px]">{numberWord(strip)}</span>
        </span>
        {props.rowEnd(strip)}
      </div>
      {columns.map((column, place) => {
        const key = `${strip}/${column}`;
        const mark = marks[place] as CellMark;
        const none = mark === "-";
        const selected =
          props.here !== null && place >= props.here.left && place <= props.here.right;
        return (
          <span
            key={column}
            id={`member-${index}-${place}`}
            role="gridcell"
            aria-colindex={place + 2}
            aria-selected={selected}
            aria-label={`${name}, ${props.words[mark]}`}
            data-member={none ? undefined : key}
            className={`grid place-items-center border-b border-r border-ink ${none ? "" : "cursor-cell"} ${props.painted.has(key) ? "bg-raise" : selected ? "bg-card" : ""} ${props.cursor === place ? "outline-2 -outline-offset-2 outline-sun" : ""}`}
            style={{ width }}
          >
            {none ? (
              <span className="text-faint" aria-hidden>
                –
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
