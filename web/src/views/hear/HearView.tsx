import { useMemo, useState } from "react";
import { Link as RouteLink } from "wouter";
import type { TableHead } from "../../data/types";
import { useShow } from "../../data/use";
import { ViewHead } from "../../frame/ViewHead";
import { usePhone } from "../../ui/media";
import { Empty } from "../../ui/Panel";
import { RadioKeys } from "../../ui/RadioKeys";
import { Waiting } from "../../ui/Waiting";
import { Grid } from "./Grid";
import { LoudestLine } from "./LoudestLine";
import { OneListener } from "./OneListener";

type Filter = "all" | "ears" | "wedges" | "rooms" | "tracks" | "between";

const FILTERS: readonly (readonly [Filter, string, (head: TableHead) => boolean])[] = [
  ["all", "All", (head) => head.listens],
  ["ears", "Ears", (head) => head.serves === "ears"],
  ["wedges", "Wedges", (head) => head.serves === "wedge"],
  [
    "rooms",
    "Rooms and feeds",
    (head) => ["house", "mono", "room", "feed", "matrix"].includes(head.serves),
  ],
  ["tracks", "Tracks", (head) => head.serves === "direct"],
  ["between", "Groups and effects", (head) => head.serves === "group" || head.serves === "effect"],
];

const NO_HEADS: readonly TableHead[] = [];

const NOBODY: Record<Filter, readonly [what: string, where: string, go: string]> = {
  all: ["Make a mix for a performer, a wedge or a room.", "/mixes", "Go to Mixes"],
  ears: ["Make a mix for a performer's ears.", "/mixes", "Go to Mixes"],
  wedges: ["Make a mix that is used for a wedge.", "/mixes", "Go to Mixes"],
  rooms: ["Make a matrix for a room or a stream.", "/mixes", "Go to Mixes"],
  tracks: ["Let an output carry a channel's direct out.", "/outputs", "Go to Outputs"],
  between: ["Make a group, or a shared effect.", "/mixes", "Go to Mixes"],
};

/** Who hears what: every source against every listener, computed by the core. */
export function HearView() {
  const table = useShow((state) => state.table);
  const phone = usePhone();
  const [filter, setFilter] = useState<Filter>("all");
  const heads = useShow((state) => state.table?.heads ?? NO_HEADS);
  const columns = useMemo(() => {
    const wanted = FILTERS.find(([key]) => key === filter)![2];
    // on a phone there is one list of all of them
    return heads.flatMap((head, index) => (phone || wanted(head) ? [index] : []));
  }, [heads, filter, phone]);

  if (!table) return <Waiting className="py-5" />;
  return (
    <>
      <ViewHead title="Who hears what">
        {!phone && (
          <RadioKeys label="Listeners" keys={FILTERS} chosen={filter} onChoose={setFilter} />
        )}
      </ViewHead>
      {table.sources.length === 0 ? (
        <Empty title="Nobody plays yet">
          <p>
            A source is a channel with an input. Import the band's input list, or patch by hand.
          </p>
          <RouteLink to="/lines" className="text-sun-text underline">
            Go to Lines
          </RouteLink>
        </Empty>
      ) : columns.length === 0 ? (
        <Empty title={filter === "between" ? "No group or effect yet" : "No such listener yet"}>
          <p>{NOBODY[filter][0]}</p>
          <RouteLink to={NOBODY[filter][1]} className="text-sun-text underline">
            {NOBODY[filter][2]}
          </RouteLink>
        </Empty>
      ) : phone ? (
        <OneListener table={table} columns={columns} />
      ) : (
        <>
          <LoudestLine />
          <Grid table={table} columns={columns} />
          <Legend />
        </>
      )}
    </>
  );
}

function Legend() {
  return (
    <p className="pt-2 text-[12.5px] text-faint flex flex-wrap gap-x-4 shrink-0 short:hidden">
      <span>
        <i className="drawn inline-block w-1.5 h-1.5 rounded-full bg-sea mr-1.5 align-middle" />
        before the fader
      </span>
      <span>
        <i className="drawn inline-block w-0.5 h-3 bg-sea mr-1.5 align-middle" />
        after the fader
      </span>
      <span>
        <i className="inline-block w-1.5 h-1.5 rounded-full border-[1.5px] border-sea mr-1.5 align-middle" />
        by another strip
      </span>
      <span>
        <i className="inline-block w-3.5 h-2.5 hatch mr-1.5 align-middle" />
        blocked
      </span>
      <span>
        <b className="text-iris mr-1.5">÷</b>
        shares gain: as if alone
      </span>
      <span>
        Type a level, up 2, down 2 or off; Shift or drag for several, a head for all; Delete is off.
      </span>
    </p>
  );
}
