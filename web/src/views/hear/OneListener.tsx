import { useCallback, useEffect, useMemo, useState } from "react";
import { placesOf, valueIn } from "../../data/show";
import type { CellState, CellWay, Table } from "../../data/types";
import { listedName, select, stripName, useLink, useShow } from "../../data/use";
import { cellText, STATE_WORD } from "../../data/words";
import { Choice } from "../../ui/Choice";
import { ColourBar } from "../../ui/Panel";
import { RowList } from "../../ui/RowList";
import { ShareMark } from "../../ui/ShareMark";
import { TypedField } from "../../ui/TypedField";
import { type Mark, travelOf } from "../../ui/travel";
import { isBlocked, numberText, sourceText, spoken, WAY_MARK } from "./GridRow";

interface Props {
  table: Table;
  columns: readonly number[];
}

/** On a phone: one listener, every source below, each with what arrives. A level is typed in its row. */
export function OneListener({ table, columns }: Props) {
  const chosen = useShow((state) => state.selected?.listener);
  const source = useShow((state) => state.selected?.source ?? null);
  const listeners = useMemo(
    () => columns.map((index) => table.listeners[index]!),
    [columns, table.listeners],
  );
  const listener = chosen && listeners.includes(chosen) ? chosen : listeners[0]!;
  const names = useShow((state) => listeners.map((one) => listedName(state, one)).join("\n")).split(
    "\n",
  );
  useEffect(() => {
    if (chosen !== listener) select(null, listener);
  }, [chosen, listener]);
  const row = useCallback(
    (one: string) => <SourceRow source={one} listener={listener} />,
    [listener],
  );
  const head = table.heads[placesOf(table.listeners).get(listener)!]!;
  return (
    <>
      <div className="flex items-center gap-2 pb-2 shrink-0">
        <Choice
          boxed
          label="Listener"
          className="h-11 flex-1 font-semibold"
          value={listener}
          options={listeners.map((one, index) => [one, names[index]!] as const)}
          onChange={(one) => select(null, one)}
        />
        <span className={head.patched ? "text-faint" : "text-coral font-semibold"}>
          {head.about}
        </span>
      </div>
      <RowList label="Sources" keys={table.sources} height={50} shown={source} row={row} />
    </>
  );
}

const NO_MARKS: readonly Mark[] = [];

function SourceRow({ source, listener }: { source: string; listener: string }) {
  const link = useLink();
  const name = useShow((state) => stripName(state, source));
  const colour = useShow((state) => String(valueIn(state, `${source}/colour`)));
  const socket = useShow((state) => sourceText(state, source));
  const level = useShow((state) => cellOf(state.table, source, listener)?.level ?? null);
  const state = useShow((show) => cellOf(show.table, source, listener)?.state ?? "unrouted");
  const way = useShow((show) => cellOf(show.table, source, listener)?.way ?? "through");
  const here = useShow((show) => show.selected?.source === source);
  const marks = useShow((show) => (show.desk?.fader_marks as Mark[] | undefined) ?? NO_MARKS);
  const [typing, setTyping] = useState(false);
  return (
    <div
      data-cell={`${source} ${listener}`}
      data-state={state}
      className={`relative flex items-center gap-2 h-[48px] rounded-lg overflow-hidden pr-1 ${here ? "bg-raise" : "bg-floor"}`}
      onPointerDown={() => select(source, listener)}
      onFocus={() => {
        setTyping(true);
        select(source, listener);
      }}
      onBlur={() => setTyping(false)}
    >
      <ColourBar colour={colour} />
      <span className="w-7 text-right text-faint text-[13px]">{numberText(source)}</span>
      <span className="flex-1 min-w-0 leading-tight">
        <span className="flex items-center gap-1.5 min-w-0">
          <span dir="auto" className="block truncate">
            {name}
          </span>
          <ShareMark strip={source} />
        </span>
        <span
          dir="auto"
          className={`block truncate text-[12.5px] ${socket ? "text-faint" : "text-coral"}`}
        >
          {socket || "no source"}
        </span>
      </span>
      <span
        className={`relative w-36 h-10 shrink-0 rounded-md overflow-hidden flex items-center ${state === "unrouted" ? "border border-line" : "bg-quiet"}`}
      >
        {state === "heard" && (
          <span
            className="absolute inset-y-0 left-0 bg-heard"
            style={{ width: `${travelOf(level, marks) * 100}%` }}
            aria-hidden
          />
        )}
        {isBlocked(state) && <span className="absolute inset-0 hatch" aria-hidden />}
        {state === "heard" && (
          <span className={`relative ml-2 shrink-0 ${WAY_MARK[way]}`} aria-hidden />
        )}
        <TypedField
          align="right"
          label={`Level of ${name}: ${spoken(state, level, way)}`}
          value={
            typing && state !== "heard"
              ? ""
              : state === "heard"
                ? cellText(level)
                : STATE_WORD[state] || "not sent"
          }
          className={`relative flex-1 !h-10 !border-transparent ${state === "heard" ? "font-semibold" : isBlocked(state) ? "text-coral" : "text-faint"}`}
          onCommit={(typed) =>
            void link.do({ action: "hear", cells: [{ source, listener }], typed })
          }
          data={{ "data-column": "level", inputmode: "text" }}
        />
      </span>
    </div>
  );
}

function cellOf(
  table: Table | null,
  source: string,
  listener: string,
): { level: number | null; state: CellState; way: CellWay } | undefined {
  if (!table) return undefined;
  const row = placesOf(table.sources).get(source);
  const column = placesOf(table.listeners).get(listener);
  if (row === undefined || column === undefined) return undefined;
  return {
    level: table.level_db[row]![column]!,
    state: table.state[row]![column]!,
    way: table.way[row]![column]!,
  };
}
