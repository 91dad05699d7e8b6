import { useVirtualizer } from "@tanstack/react-virtual";
import {
  type FocusEvent,
  type KeyboardEvent,
  memo,
  type PointerEvent,
  type ReactNode,
  useEffect,
  useEffectEvent,
  useRef,
  useState,
} from "react";
import { InReach, keepsArrow, toSamePlace } from "./reach";

interface Props<Key extends string | number> {
  label: string;
  keys: readonly Key[];
  /** Height of a row with the room below it, in px. */
  height: number;
  row: (key: Key) => ReactNode;
  className?: string;
  /** What follows the last row. */
  foot?: ReactNode;
  onKeyDown?: (event: KeyboardEvent<HTMLDivElement>) => void;
  onPointerMove?: (event: PointerEvent<HTMLDivElement>) => void;
  /** A row to bring into sight, as often as it changes. */
  shown?: Key | null;
}

/**
 * A list that draws only the rows in sight. It is one place for the Tab key, which then goes through
 * the controls of one row; up and down go to the same control of the next row.
 */
export function RowList<Key extends string | number>(props: Props<Key>) {
  const { keys, height, row } = props;
  const scroller = useRef<HTMLDivElement>(null);
  const [current, setCurrent] = useState<Key | null>(null);
  const rows = useVirtualizer({
    count: keys.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => height,
    getItemKey: (index) => keys[index] ?? index,
    overscan: 4,
  });
  useEffect(() => rows.measure(), [rows, height]);
  const shown = props.shown ?? null;
  // only what is to be shown moves the list, not what the list holds
  const bring = useEffectEvent((key: Key) => {
    const place = keys.indexOf(key);
    if (place < 0) return;
    setCurrent(key);
    rows.scrollToIndex(place, { align: "auto" });
  });
  useEffect(() => {
    if (shown === null) return;
    bring(shown);
    if (!scroller.current || !("ResizeObserver" in window)) return;
    const height = scroller.current.clientHeight;
    // what takes room beside the list must not hide it
    const watch = new ResizeObserver(([frame]) => {
      if (frame && Math.abs(frame.contentRect.height - height) > 1) bring(shown);
    });
    watch.observe(scroller.current);
    return () => watch.disconnect();
  }, [shown]);

  const inSight = rows.getVirtualItems().filter(({ index }) => index < keys.length);
  // a row that was scrolled away takes no stop from the list
  const reached = inSight.some(({ index }) => keys[index] === current)
    ? current
    : keys[inSight[0]?.index ?? 0];

  const onFocus = (event: FocusEvent) => {
    const place = (event.target as HTMLElement).closest<HTMLElement>("[data-index]")?.dataset.index;
    if (place !== undefined) setCurrent(keys[Number(place)] ?? null);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>) => {
    props.onKeyDown?.(event);
    const step = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
    const from = event.target as HTMLElement;
    if (!step || keepsArrow(event, false)) return;
    const here = from.closest<HTMLElement>("[data-index]");
    const next = scroller.current?.querySelector<HTMLElement>(
      `[data-index="${Number(here?.dataset.index) + step}"]`,
    );
    if (here && toSamePlace(from, here, next)) event.preventDefault();
  };

  return (
    <div
      ref={scroller}
      data-grid
      className={`scrolls flex-1 min-h-0 short:min-h-60 ${props.className ?? ""}`}
      onFocus={onFocus}
      onKeyDown={onKeyDown}
      onPointerMove={props.onPointerMove}
    >
      <div
        role="list"
        aria-label={props.label}
        className="relative"
        style={{ height: rows.getTotalSize() }}
      >
        {inSight.map(({ index, start, key }) => (
          <div
            key={key}
            role="listitem"
            aria-setsize={keys.length}
            aria-posinset={index + 1}
            data-index={index}
            className="absolute inset-x-0"
            style={{ top: start, height }}
          >
            <InReach value={keys[index] === reached}>
              <Kept of={keys[index]!} row={row as (key: string | number) => ReactNode} />
            </InReach>
          </div>
        ))}
      </div>
      {props.foot}
    </div>
  );
}

/** A row is put together again only when it is another, or is drawn by another hand. */
const Kept = memo(function Kept({
  of,
  row,
}: {
  of: string | number;
  row: (key: string | number) => ReactNode;
}) {
  return row(of);
});
