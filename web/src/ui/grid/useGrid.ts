/** A grid of cells: one tab stop, walked by arrows, taken in blocks, whole rows and whole columns. */
import { useVirtualizer, type Virtualizer } from "@tanstack/react-virtual";
import {
  type KeyboardEvent,
  type PointerEvent,
  type RefObject,
  useEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import { block, type Place, stepped, type Taken, takenIn, type Whole, within } from "./block";

interface Options {
  /** How many there are. */
  rows: number;
  columns: number;
  /** In px: of a row, a column, the heads of rows and of columns. */
  height: number;
  width: number;
  headWidth: number;
  headHeight: number;
  /** The columns that a row takes which is taken whole; none: all. */
  ofRows?: readonly number[];
  /** Whether heads of columns take them whole; else they hold fields and links. */
  byColumns?: boolean;
  /** The cursor went somewhere by a hand. */
  onGo?: (place: Place) => void;
}

export interface GridHand {
  scroller: RefObject<HTMLDivElement | null>;
  rows: Virtualizer<HTMLDivElement, Element>;
  columns: Virtualizer<HTMLDivElement, Element>;
  /** Where the cursor is, and what is taken with it. */
  head: Place;
  whole: Whole;
  taken: Taken;
  /** Puts the cursor on a cell and brings it into sight; `extend`: and takes all up to it. */
  goTo: (place: Place, extend?: boolean, whole?: Whole) => void;
  /** The same, without a word to `onGo`: somebody else moved it. */
  follow: (place: Place) => void;
  setWhole: (whole: Whole) => void;
  /** Arrows, pages, Home and End, and the keys that take rows and columns; true: it was one. */
  walk: (event: KeyboardEvent) => boolean;
  /** A press on a head takes its row or column; true: it was on one. */
  takeByHead: (event: PointerEvent) => boolean;
}

const START: Place = { row: 0, column: 0 };
const ALL: readonly number[] = [];

export function useGrid(options: Options): GridHand {
  const { height, width, headWidth, headHeight, ofRows = ALL, onGo } = options;
  const scroller = useRef<HTMLDivElement>(null);
  const [from, setFrom] = useState(START);
  const [to, setTo] = useState(START);
  const [whole, setWhole] = useState<Whole>(null);
  // fewer may be drawn than a moment ago: what is typed needs a cell
  const [anchor, head] = useMemo(
    () => [from, to].map((place) => within(place, options.rows, options.columns)) as [Place, Place],
    [from, to, options.rows, options.columns],
  );
  const rows = useVirtualizer({
    count: options.rows,
    getScrollElement: () => scroller.current,
    estimateSize: () => height,
    overscan: 6,
    // the head of the columns stays on top of the first rows, that of the rows left of the columns
    paddingStart: headHeight,
    scrollPaddingStart: headHeight,
  });
  const columns = useVirtualizer({
    horizontal: true,
    count: options.columns,
    getScrollElement: () => scroller.current,
    estimateSize: () => width,
    overscan: 4,
    paddingStart: headWidth,
    scrollPaddingStart: headWidth,
  });
  useEffect(() => rows.measure(), [rows, height, headHeight]);
  useEffect(() => columns.measure(), [columns, width, headWidth]);
  const taken = useMemo(
    () => takenIn(block(anchor, head), whole, options.rows, options.columns, ofRows),
    [anchor, head, whole, options.rows, options.columns, ofRows],
  );

  const put = (place: Place, extend: boolean, wholly: Whole) => {
    setTo(place);
    if (!extend) setFrom(place);
    setWhole(wholly);
    rows.scrollToIndex(place.row);
    columns.scrollToIndex(place.column);
  };
  const goTo = (place: Place, extend = false, wholly: Whole = null) => {
    put(place, extend, wholly);
    onGo?.(place);
  };
  const walk = (event: KeyboardEvent): boolean => {
    if (event.key === " " && (event.shiftKey || (event.ctrlKey && options.byColumns))) {
      setWhole(event.shiftKey ? "row" : "column");
    } else if (event.ctrlKey || event.metaKey || event.altKey) {
      return false;
    } else if (event.key === "Escape" && whole) {
      setWhole(null);
    } else {
      const next = stepped(head, event.key, options.rows, options.columns);
      if (!next) return false;
      goTo(next, event.shiftKey);
    }
    event.preventDefault();
    return true;
  };
  const takeByHead = (event: PointerEvent): boolean => {
    const under = event.target as HTMLElement;
    if (event.button !== 0 || under.closest("input, button, a")) return false;
    const row = under.closest<HTMLElement>("[data-row-head]")?.dataset.rowHead;
    const column = under.closest<HTMLElement>("[data-column-head]")?.dataset.columnHead;
    if (row !== undefined) {
      goTo({ row: Number(row), column: head.column }, event.shiftKey, "row");
    } else if (column !== undefined && options.byColumns) {
      goTo({ row: head.row, column: Number(column) }, event.shiftKey, "column");
    } else return false;
    return true;
  };
  const follow = (place: Place) => put(place, false, null);
  return { scroller, rows, columns, head, whole, taken, goTo, follow, setWhole, walk, takeByHead };
}

/** The cell that lies under a press: cells say where they are by `data-place`, "row column". */
export function placeUnder(target: EventTarget): Place | null {
  const place = (target as HTMLElement).closest<HTMLElement>("[data-place]")?.dataset.place;
  if (!place) return null;
  const [row, column] = place.split(" ").map(Number) as [number, number];
  return { row, column };
}
