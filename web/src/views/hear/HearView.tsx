import { useMemo, useState } from "react";
import { valueOf } from "../../data/show";
import { useShow } from "../../data/use";
import { Empty, ViewHead } from "../../ui/Panel";
import { Link as RouteLink } from "wouter";
import { Grid } from "./Grid";

type Filter = "all" | "ears" | "wedges" | "rooms";

const FILTERS: readonly (readonly [Filter, string, readonly string[]])[] = [
  ["all", "All", []],
  ["ears", "Ears", ["ears"]],
  ["wedges", "Wedges", ["wedge"]],
  ["rooms", "Rooms and feeds", ["house", "mono", "room", "feed", "effect"]],
];

/** Who hears what: every source against every listener, computed by the core. */
export function HearView() {
  const table = useShow((state) => state.table);
  const [filter, setFilter] = useState<Filter>("all");
  const serves = useShow((state) =>
    (state.table?.listeners ?? [])
      .map((listener) =>
        listener.startsWith("mix/") ? String(valueOf(state, `${listener}/serves`)) : listener,
      )
      .join(" "),
  );
  const columns = useMemo(() => {
    const wanted = FILTERS.find(([key]) => key === filter)![2];
    return serves
      .split(" ")
      .map((kind, index) => [kind, index] as const)
      .filter(([kind]) => filter === "all" || wanted.includes(kind))
      .map(([, index]) => index);
  }, [serves, filter]);

  if (!table) return <p className="py-5 text-soft">Computing who hears what…</p>;
  return (
    <>
      <ViewHead title="Who hears what">
        <div role="radiogroup" aria-label="Listeners" className="flex rounded-xl border border-line overflow-hidden">
          {FILTERS.map(([key, word]) => (
            <button
              key={key}
              type="button"
              role="radio"
              aria-checked={filter === key}
              onClick={() => setFilter(key)}
              className={`h-8 px-3 cursor-pointer ${filter === key ? "bg-raise font-semibold" : "text-soft hover:text-paper"}`}
            >
              {word}
            </button>
          ))}
        </div>
      </ViewHead>
      {table.sources.length === 0 ? (
        <Empty title="Nobody plays yet">
          <p>A source is a channel with an input. Import the band's input list, or patch by hand.</p>
          <RouteLink to="/lines" className="text-sun-text underline">
            Go to Lines
          </RouteLink>
        </Empty>
      ) : columns.length === 0 ? (
        <Empty title="No such listener yet">
          <p>Make a mix for a performer, a wedge or a room.</p>
          <RouteLink to="/mixes" className="text-sun-text underline">
            Go to Mixes
          </RouteLink>
        </Empty>
      ) : (
        <>
          <Grid table={table} columns={columns} />
          <Legend />
        </>
      )}
    </>
  );
}

function Legend() {
  return (
    <p className="pt-2 text-[12.5px] text-faint flex flex-wrap gap-x-4 shrink-0">
      <span><i className="inline-block w-1.5 h-1.5 rounded-full bg-sea mr-1.5 align-middle" />before the fader</span>
      <span><i className="inline-block w-0.5 h-3 bg-sea mr-1.5 align-middle" />after the fader</span>
      <span><i className="inline-block w-3.5 h-2.5 hatch mr-1.5 align-middle" />blocked</span>
      <span>Type a level, +2, +-2 or off; Shift or drag for several; Delete is off.</span>
    </p>
  );
}
