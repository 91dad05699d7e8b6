import { useVirtualizer } from "@tanstack/react-virtual";
import {
  type KeyboardEvent,
  type MouseEvent,
  memo,
  type PointerEvent,
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
} from "react";
import { trueLevel, useMadeOf, useMutedBy } from "../../data/ruled";
import { store, valueIn } from "../../data/show";
import { useStrips } from "../../data/strips";
import type { Ask } from "../../data/types";
import { stripName, useLink, useShow } from "../../data/use";
import { cellText } from "../../data/words";
import { Joining, join } from "../../ui/Joining";
import { useCoarse, usePhone, useRowHeight } from "../../ui/media";
import { ColourBar } from "../../ui/Panel";
import { SearchField } from "../../ui/SearchField";
import { type Block, block, type Place, stepped } from "../hear/block";
import { KIND, type Kind } from "./kinds";
import { RulerHead } from "./RulerHead";

/** Strips that can be members, in the order of the desk; for DCAs the DCAs themselves last. */
function useRows(kind: Kind, filter: string): readonly string[] {
  const used = useStrips();
  const dcas = useShow((state) => state.dcas);
  return useMemo(() => {
    const strips = [...used, ...(kind === "dca" ? dcas.map((n) => `dca/${n}`) : [])];
    const wanted = filter.trim().toLowerCase();
    const state = store.getState(); // names as they are when one types: no move is followed for them
    return strips.filter((strip) =>
      `${stripName(state, strip)} ${strip.replace("/", " ")}`.toLowerCase().includes(wanted),
    );
  }, [kind, filter, used, dcas]);
}

/** Strips against DCAs or mute groups: painted by dragging, or by arrows and Space. */
export function MembersTable({ kind, rulers }: { kind: Kind; rulers: readonly number[] }) {
  const link = useLink();
  const [filter, setFilter] = useState("");
  const rows = useRows(kind, filter);
  const columns = useMemo(() => rulers.map((number) => `${kind}/${number}`), [kind, rulers]);
  const phone = usePhone();
  const coarse = useCoarse();
  const height = useRowHeight(32);
  const headWidth = phone ? 148 : 216;
  const width = kind === "gang" ? 98 : 66; // what a gang carries takes words
  const headHeight = coarse ? 214 : 140;
  const scroller = useRef<HTMLDivElement>(null);
  const [anchor, setAnchor] = useState<Place>({ row: 0, column: 0 });
  const [head, setHead] = useState<Place>({ row: 0, column: 0 });
  const [showing, setShowing] = useState<Ask | null>(null);
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

  const goTo = (place: Place, extend: boolean) => {
    setHead(place);
    if (!extend) setAnchor(place);
    virtual.scrollToIndex(place.row);
    scroller.current
      ?.querySelector(`[data-ruler-head="${columns[place.column]}"]`)
      ?.scrollIntoView({ inline: "nearest", block: "nearest" });
  };
  const give = (cells: Iterable<string>, on: boolean) => {
    const moves = [...cells].map((cell) => ({ address: `${cell}/on`, value: on }));
    if (moves.length > 0) void join(link, { action: "moves", moves }, setShowing);
  };
  const toggle = (area: Block) => {
    const cells: string[] = [];
    for (let row = area.top; row <= Math.min(area.bottom, rows.length - 1); row++)
      for (let column = area.left; column <= Math.min(area.right, columns.length - 1); column++)
        if (rows[row] !== columns[column]) cells.push(`${rows[row]}/${columns[column]}`);
    const first =
      cells.find((cell) => cell === `${rows[head.row]}/${columns[head.column]}`) ?? cells[0];
    if (first) give(cells, valueIn(store.getState(), `${first}/on`) !== true);
  };
  const onHead = useCallback((ask: Ask) => void join(link, ask, setShowing), [link]);
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
    }
  };
  const onDown = (event: PointerEvent) => {
    const cell = cellUnder(event.target);
    if (!cell || event.button !== 0) return;
    const on = valueIn(store.getState(), `${cell.key}/on`) !== true;
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
    if (cell) give([cell.key], valueIn(store.getState(), `${cell.key}/on`) !== true);
  };

  return (
    <>
      {showing && <Joining ask={showing} onDone={() => setShowing(null)} />}
      <div className="flex items-center gap-3 pb-2 shrink-0">
        <SearchField
          label="Find strips"
          placeholder="Find a strip"
          value={filter}
          onChange={setFilter}
        />
        <span className="text-faint text-[13px] phone:hidden">
          Paint by dragging, or arrows and Space.
          {kind === "dca" && " A ring: by way of another DCA."}
        </span>
      </div>
      <div
        ref={scroller}
        role="grid"
        aria-label={`Strips against ${KIND[kind].title}`}
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
              Strip, and what it comes to
            </span>
            {columns.map((ruler) => (
              <RulerHead key={ruler} ruler={ruler} kind={kind} width={width} onAsk={onHead} />
            ))}
          </div>
          {virtual
            .getVirtualItems()
            .map(({ index, start }) =>
              index < rows.length ? (
                <MemberRow
                  key={rows[index]}
                  strip={rows[index]!}
                  index={index}
                  top={start}
                  height={height}
                  headWidth={headWidth}
                  width={width}
                  columns={columns}
                  painted={painted}
                  here={index >= taken.top && index <= taken.bottom ? taken : null}
                  cursor={index === head.row ? head.column : null}
                />
              ) : null,
            )}
        </div>
      </div>
    </>
  );
}

function cellUnder(target: EventTarget): { key: string; place: Place } | null {
  const cell = (target as HTMLElement).closest<HTMLElement>("[data-member]");
  if (!cell) return null;
  const [row, column] = cell.id.split("-").slice(1).map(Number);
  return { key: cell.dataset.member!, place: { row: row!, column: column! } };
}

interface RowProps {
  strip: string;
  index: number;
  top: number;
  height: number;
  headWidth: number;
  width: number;
  columns: readonly string[];
  painted: ReadonlySet<string>;
  here: Block | null;
  cursor: number | null;
}

const MemberRow = memo(function MemberRow(props: RowProps) {
  const { strip, index, columns, width } = props;
  const name = useShow((state) => stripName(state, strip));
  const [kind, number] = strip.split("/");
  const colour = useShow((state) => (number ? String(valueIn(state, `${strip}/colour`)) : "sand"));
  const level = useShow((state) => trueLevel(state, strip));
  const made = useMadeOf(strip);
  const muted = useMutedBy(strip);
  const own = useShow((state) => valueIn(state, `${strip}/mute`) === true);
  const silent = own || muted !== "";
  // which of the columns it is in, and which rule it by way of another
  const marks = useShow((state) => {
    const direct = columns.map((ruler) => state.members.get(ruler)?.has(strip) === true);
    const reached = new Set<string>();
    const waiting = columns.filter((_, place) => direct[place]);
    while (waiting.length > 0) {
      const at = waiting.pop()!;
      for (const ruler of columns)
        if (!reached.has(ruler) && state.members.get(ruler)?.has(at)) {
          reached.add(ruler);
          waiting.push(ruler);
        }
    }
    return columns
      .map((ruler, place) => (direct[place] ? "m" : reached.has(ruler) ? "r" : "."))
      .join("");
  });
  const word =
    kind === "channel"
      ? number
      : kind === "dca"
        ? `DCA ${number}`
        : number
          ? `${kind} ${number}`
          : "";
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      className="absolute left-0 flex"
      style={{ top: props.top, height: props.height }}
    >
      <div
        role="rowheader"
        title={made || muted || undefined}
        className={`sticky left-0 z-10 flex gap-2 items-center pr-2 shrink-0 border-b border-ink ${props.cursor !== null ? "bg-raise" : "bg-card"}`}
        style={{ width: props.headWidth }}
      >
        <ColourBar colour={colour} />
        <span className="truncate flex-1 min-w-0">
          {name} {word && <span className="text-faint text-[12px]">{word}</span>}
        </span>
        <span
          className={
            silent ? "text-coral text-[13px]" : made ? "text-sea font-semibold" : "text-soft"
          }
        >
          {silent ? "muted" : cellText(level)}
        </span>
      </div>
      {columns.map((ruler, column) => {
        const key = `${strip}/${ruler}`;
        const itself = strip === ruler;
        const mark = marks[column];
        const selected =
          props.here !== null && column >= props.here.left && column <= props.here.right;
        return (
          <span
            key={ruler}
            id={`member-${index}-${column}`}
            role="gridcell"
            aria-colindex={column + 2}
            aria-selected={selected}
            aria-label={`${name}, ${mark === "m" ? "member" : mark === "r" ? "by way of another" : itself ? "itself" : "no member"}`}
            data-member={itself ? undefined : key}
            className={`grid place-items-center border-b border-r border-ink ${itself ? "" : "cursor-cell"} ${props.painted.has(key) ? "bg-raise" : selected ? "bg-card" : ""} ${props.cursor === column ? "outline-2 -outline-offset-2 outline-sun" : ""}`}
            style={{ width }}
          >
            {itself ? (
              <span className="text-faint" aria-hidden>
                –
              </span>
            ) : (
              <Mark kind={mark!} ruler={ruler} />
            )}
          </span>
        );
      })}
    </div>
  );
});

function Mark({ kind, ruler }: { kind: string; ruler: string }) {
  const colour = useShow((state) => String(valueIn(state, `${ruler}/colour`)));
  if (kind === ".") return null;
  return (
    <span
      aria-hidden
      className={kind === "m" ? "w-5 h-5 rounded-md" : "w-4 h-4 rounded-full border-2"}
      style={
        kind === "m"
          ? { background: `var(--mark-${colour})` }
          : { borderColor: `var(--strip-${colour})` }
      }
    />
  );
}
