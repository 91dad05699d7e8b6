import { type FocusEvent, memo } from "react";
import { isOf, numberOf } from "../../data/address";
import { type ShowState, valueIn } from "../../data/show";
import type { CellState, CellWay, TableHead } from "../../data/types";
import { socketName, sourceInForce, stripName, useShow } from "../../data/use";
import { cellText, STATE_WORD } from "../../data/words";
import { ColourBar } from "../../ui/Panel";
import { ShareMark } from "../../ui/ShareMark";
import { type Mark, travelOf } from "../../ui/travel";

export const COLUMN = 59;
export const TOP = 62;

/** A drawn column: which of the table's it is, where it stands among the drawn, and where on the page. */
export interface DrawnColumn {
  index: number;
  place: number;
  left: number;
}

interface HeadProps {
  listener: string;
  head: TableHead;
  place: number;
  left: number;
  chosen: boolean;
}

export const ColumnHead = memo(function ColumnHead({
  listener,
  head,
  place,
  left,
  chosen,
}: HeadProps) {
  const name = useShow((state) => stripName(state, listener));
  const colour = useShow((state) =>
    isOf(listener, "mix", "group", "matrix")
      ? String(valueIn(state, `${listener}/colour`))
      : "sand",
  );
  return (
    <div
      role="columnheader"
      aria-colindex={place + 2}
      data-column-head={place}
      title={`${name}: take the column`}
      className={`absolute top-0 px-[3px] pt-1.5 pb-1 rounded-t-lg border-t-[3px] text-[11px] tracking-tight leading-[14px] cursor-pointer ${chosen ? "bg-raise" : "bg-floor hover:bg-card"}`}
      style={{ left, width: COLUMN - 2, height: TOP - 2, borderColor: `var(--strip-${colour})` }}
    >
      <span dir="auto" className="block font-semibold h-7 overflow-hidden hyphens-auto break-words">
        {name}
      </span>
      <span
        className={`block mt-1 text-[11px] whitespace-nowrap ${head.patched ? "text-faint" : "text-coral font-semibold"}`}
      >
        {head.about}
      </span>
    </div>
  );
});

/** What feeds a source now: its socket, or its spare while it is switched to that. */
export function sourceText(state: ShowState, source: string): string {
  const { from, spare } = sourceInForce(state, source);
  return from && spare ? `${socketName(state, from)} spare` : socketName(state, from);
}

/** A return's number has a letter before it; a channel's stands alone. */
export const numberText = (source: string): string =>
  `${isOf(source, "return") ? "R" : ""}${numberOf(source)}`;

function RowHead({
  source,
  row,
  chosen,
  width,
  height,
}: {
  source: string;
  row: number;
  chosen: boolean;
  width: number;
  height: number;
}) {
  const name = useShow((state) => stripName(state, source));
  const colour = useShow((state) => String(valueIn(state, `${source}/colour`)));
  const socket = useShow((state) => sourceText(state, source));
  return (
    <div
      role="rowheader"
      aria-colindex={1}
      data-row-head={row}
      title={`${name}: take the row`}
      className={`sticky left-0 z-10 shrink-0 flex items-center gap-1.5 rounded-md pr-2 cursor-pointer ${chosen ? "bg-raise" : "bg-floor hover:bg-card"}`}
      style={{ width: width - 2, height: height - 2 }}
    >
      <ColourBar colour={colour} />
      <span className="w-[18px] text-right text-faint text-[12px]">{numberText(source)}</span>
      <span dir="auto" className="flex-1 truncate">
        {name}
      </span>
      <ShareMark strip={source} />
      <span
        dir="auto"
        className={`text-[12px] whitespace-nowrap max-w-[45%] truncate ${socket ? "text-faint" : "text-coral"}`}
      >
        {socket || "no source"}
      </span>
    </div>
  );
}

interface RowProps {
  source: string;
  row: number;
  top: number;
  height: number;
  headWidth: number;
  columns: readonly DrawnColumn[];
  listeners: readonly string[];
  levels: readonly (number | null)[];
  states: readonly CellState[];
  ways: readonly CellWay[];
  marks: readonly Mark[];
  /** Where the cursor stands in this row, and which of its places are taken. */
  cursor: number | null;
  taken: ReadonlySet<number> | null;
  draft: string | null;
  onDraft: (text: string | null) => void;
  onCommit: (text: string) => void;
}

/** One source: drawn again only when something of its own moved. */
export const GridRow = memo(function GridRow(props: RowProps) {
  const { source, row, cursor, taken } = props;
  return (
    <div
      role="row"
      aria-rowindex={row + 2}
      className="absolute left-0 right-0"
      style={{ top: props.top, height: props.height }}
    >
      <RowHead
        source={source}
        row={row}
        chosen={cursor !== null}
        width={props.headWidth}
        height={props.height}
      />
      {props.columns.map(({ index, place, left }) => (
        <Cell
          key={place}
          id={`cell-${row}-${place}`}
          label={`${source} ${props.listeners[index]}`}
          place={`${row} ${place}`}
          columnIndex={place + 2}
          left={left}
          height={props.height}
          marks={props.marks}
          levelDb={props.levels[index] ?? null}
          state={props.states[index] ?? "unrouted"}
          way={props.ways[index] ?? "through"}
          here={place === cursor}
          chosen={taken?.has(place) ?? false}
          draft={place === cursor ? props.draft : null}
          onDraft={props.onDraft}
          onCommit={props.onCommit}
        />
      ))}
    </div>
  );
});

/** Before or after the fader of the source, or by way of another strip: a shape for each. */
export const WAY_MARK: Record<CellWay, string> = {
  before: "drawn bg-sea w-1.5 h-1.5 rounded-full",
  after: "drawn bg-sea w-0.5 h-3",
  through: "border-[1.5px] border-sea w-1.5 h-1.5 rounded-full",
};
const WAY_WORD: Record<CellWay, string> = {
  before: "before the fader",
  after: "after the fader",
  through: "by another strip",
};

/** A cell in full, for who hears it rather than sees it. */
export function spoken(state: CellState, levelDb: number | null, way: CellWay): string {
  if (state === "heard") return `${cellText(levelDb)} dB, ${WAY_WORD[way]}`;
  return state === "unrouted" ? "not sent" : STATE_WORD[state];
}

export const isBlocked = (state: CellState): boolean =>
  state === "muted" || state === "no_source" || state === "no_output" || state === "cancelled";

interface CellProps {
  id: string;
  label: string;
  place: string;
  columnIndex: number;
  left: number;
  height: number;
  marks: readonly Mark[];
  levelDb: number | null;
  state: CellState;
  way: CellWay;
  here: boolean;
  chosen: boolean;
  draft: string | null;
  onDraft: (text: string | null) => void;
  onCommit: (text: string) => void;
}

function Cell(props: CellProps) {
  const { levelDb, state, here, chosen, draft } = props;
  const blocked = isBlocked(state);
  const ring = here ? "border-2 border-sun" : chosen ? "border border-sun/80" : "";
  return (
    <div
      id={props.id}
      role="gridcell"
      aria-colindex={props.columnIndex}
      aria-selected={chosen}
      aria-label={here ? spoken(state, levelDb, props.way) : undefined}
      data-cell={props.label}
      data-place={props.place}
      data-state={state}
      className={`absolute top-0 rounded-md overflow-hidden text-right text-[13px] pr-1.5 cursor-cell select-none ${
        blocked ? "hatch text-coral" : state === "heard" ? "bg-quiet" : "bg-floor"
      }`}
      style={{
        left: props.left,
        width: COLUMN - 2,
        height: props.height - 2,
        lineHeight: `${props.height - 2}px`,
      }}
    >
      {state === "heard" && (
        <>
          <span
            className="absolute inset-y-0 left-0 bg-heard"
            style={{ width: `${travelOf(levelDb, props.marks) * 100}%` }}
            aria-hidden
          />
          <span
            className={`absolute left-1.5 top-1/2 -translate-y-1/2 ${WAY_MARK[props.way]}`}
            aria-hidden
          />
          <span className="relative">{cellText(levelDb)}</span>
        </>
      )}
      {state === "down" && (
        <span className="text-faint text-[11.5px] whitespace-nowrap">fader off</span>
      )}
      {blocked && (
        <span
          className={`bg-card rounded px-0.5 ${state === "no_source" || state === "cancelled" ? "text-[10px]" : "text-[12px]"}`}
        >
          {STATE_WORD[state]}
        </span>
      )}
      {state === "unrouted" && (
        <span className="text-faint pr-4" aria-hidden>
          ·
        </span>
      )}
      {ring && <span className={`absolute inset-0 rounded-md ${ring}`} aria-hidden />}
      {draft !== null && (
        <CellInput draft={draft} onDraft={props.onDraft} onCommit={props.onCommit} />
      )}
    </div>
  );
}

/** A key that leaves the field without settling gives it up; another field or view does too. */
export function CellInput({
  draft,
  onDraft,
  onCommit,
}: Pick<CellProps, "onDraft" | "onCommit"> & { draft: string }) {
  const leave = (event: FocusEvent) => event.currentTarget.isConnected && onDraft(null);
  return (
    <input
      autoFocus
      aria-label="Level to arrive"
      className="absolute inset-0 w-full bg-raise text-paper text-right px-1.5 text-[13px] select-text"
      value={draft}
      onChange={(event) => onDraft(event.currentTarget.value)}
      onBlur={leave}
      onPointerDown={(event) => event.stopPropagation()}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === "Enter") onCommit(draft);
        if (event.key === "Escape") onCommit("");
      }}
    />
  );
}
