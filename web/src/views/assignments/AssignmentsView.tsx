import { useCallback, useMemo, useState } from "react";
import { Link as RouteLink } from "wouter";
import { inWords, isSource } from "../../data/address";
import { hasPhrase } from "../../data/search";
import { colourOf, type ShowState, store, valueIn } from "../../data/show";
import { useStrips } from "../../data/strips";
import type { Ask } from "../../data/types";
import { socketName, sourceInForce, stripName, useShow } from "../../data/use";
import { ViewHead } from "../../frame/ViewHead";
import { useJoining } from "../../ui/Joining";
import { type CellMark, PaintTable } from "../../ui/PaintTable";
import { Empty } from "../../ui/Panel";
import { SearchField } from "../../ui/SearchField";
import { Toggle } from "../../ui/Toggle";
import { ColumnHead, WIDTH } from "./ColumnHead";
import { isIn, KINDS, type KindKey, markOf, useColumns } from "./columns";

/** Every strip against everything that it can be assigned to: filtered, painted, printed. */
export function AssignmentsView() {
  const [filter, setFilter] = useState("");
  const [hidden, setHidden] = useState<ReadonlySet<KindKey>>(new Set());
  const [only, setOnly] = useState<string | null>(null);
  const { join, bar } = useJoining();
  const onAsk = useCallback((ask: Ask) => void join(ask), [join]);
  const columns = useColumns(hidden);
  const within = only && columns.includes(only) ? only : null;
  const rows = useRows(filter, within);
  const empty = useShow((state) => state.channels.length === 0);
  const fold = (kind: KindKey) =>
    setHidden((before) => {
      const after = new Set(before);
      if (!after.delete(kind)) after.add(kind);
      return after;
    });
  const head = useCallback(
    (column: string) => (
      <ColumnHead
        key={column}
        column={column}
        chosen={column === within}
        onChoose={() => setOnly(column === within ? null : column)}
      />
    ),
    [within],
  );
  return (
    <>
      <ViewHead title="Assignments" />
      {empty ? (
        <Empty title="Nothing to assign yet">
          <RouteLink to="/patch" className="text-sun-text underline">
            First give channels a source, in Patch
          </RouteLink>
        </Empty>
      ) : (
        <>
          {bar}
          <div className="flex items-center gap-x-3 gap-y-1.5 pb-2 shrink-0 flex-wrap">
            <SearchField
              label="Find strips"
              placeholder="Find a strip"
              value={filter}
              onChange={setFilter}
            />
            <span role="group" aria-label="What is shown" className="flex gap-1.5 flex-wrap">
              {KINDS.map(({ key, word }) => (
                <Toggle
                  key={key}
                  label={`${word} ${hidden.has(key) ? "hidden" : "shown"}`}
                  tone="sun"
                  pressed={!hidden.has(key)}
                  onChange={() => fold(key)}
                >
                  {word}
                </Toggle>
              ))}
            </span>
            {within && <Within column={within} count={rows.length} onAll={() => setOnly(null)} />}
            <span className="text-faint text-[13px] narrow:hidden">
              Paint by dragging, or arrows and Space. A head shows who is in it.
            </span>
          </div>
          <PaintTable
            label="Strips against all that they can be assigned to"
            rows={rows}
            columns={columns}
            width={WIDTH}
            headHeight={132}
            headWord="Strip, and its source"
            head={head}
            rowEnd={sourceOf}
            marks={marks}
            words={WORDS}
            draw={drawn}
            isOn={(cell) => isIn(store.getState(), cell)}
            onGive={(cells, on) =>
              onAsk({
                action: "moves",
                moves: cells.map((cell) => ({ address: `${cell}/on`, value: on })),
              })
            }
          />
        </>
      )}
    </>
  );
}

/** Strips by what is typed, and by the column whose members alone are looked at. */
function useRows(filter: string, within: string | null): readonly string[] {
  const strips = useStrips();
  const members = useShow((state) =>
    within === null ? "" : strips.filter((strip) => markOf(state, strip, within) === "m").join(" "),
  );
  return useMemo(() => {
    const said = hasPhrase(filter);
    const state = store.getState(); // names as they are when one types
    const some = within === null ? strips : members.split(" ").filter(Boolean);
    return some.filter((strip) => said(`${stripName(state, strip)} ${inWords(strip)}`));
  }, [filter, within, members, strips]);
}

function Within({ column, count, onAll }: { column: string; count: number; onAll: () => void }) {
  const name = useShow((state) => stripName(state, column.replace("send/", "")));
  return (
    <button
      type="button"
      onClick={onAll}
      className="h-8 coarse:h-11 px-3 rounded-xl border border-sun text-sun-text cursor-pointer max-w-72 truncate"
    >
      only the {count} in {name}: show all
    </button>
  );
}

const WORDS = {
  m: "assigned",
  r: "by way of another",
  z: "sent, and its switch is off",
  ".": "not assigned",
  o: "not sent",
  "-": "cannot be",
} as const;

const marks = (state: ShowState, strip: string, columns: readonly string[]): string =>
  columns.map((column) => markOf(state, strip, column)).join("");

const sourceOf = (strip: string) => <SourceText strip={strip} />;
const drawn = (mark: CellMark, column: string) => <Mark mark={mark} column={column} />;

function SourceText({ strip }: { strip: string }) {
  const text = useShow((state) => {
    if (!isSource(strip)) return "";
    const { from } = sourceInForce(state, strip);
    return from ? socketName(state, from) : "";
  });
  const muted = useShow((state) => valueIn(state, `${strip}/mute`) === true);
  return (
    <>
      {muted && <span className="text-coral text-[12px]">muted</span>}
      <span className="text-faint text-[12px] whitespace-nowrap phone:hidden">{text}</span>
    </>
  );
}

function Mark({ mark, column }: { mark: CellMark; column: string }) {
  const colour = useShow((state) => colourOf(state, column.replace("send/", ""), "sea"));
  if (mark === "." || mark === "o") return null;
  const ring = mark === "r" || mark === "z";
  return (
    <span
      aria-hidden
      className={ring ? "w-3.5 h-3.5 rounded-full border-2" : "drawn w-4 h-4 rounded-md"}
      style={
        ring
          ? {
              borderColor: `var(--strip-${colour})`,
              borderStyle: mark === "z" ? "dashed" : "solid",
            }
          : { background: `var(--mark-${colour})` }
      }
    />
  );
}
