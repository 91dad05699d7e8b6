import { useCallback, useMemo, useState } from "react";
import { Link as RouteLink } from "wouter";
import { inWords, thingOf } from "../../data/address";
import { hasPhrase } from "../../data/search";
import { colourOf, type ShowState, store, valueIn } from "../../data/show";
import type { Ask } from "../../data/types";
import { stripName, useLink, useShow } from "../../data/use";
import { panText } from "../../data/words";
import { Free } from "../../frame/Free";
import { actOf } from "../../frame/keys";
import { ViewHead } from "../../frame/ViewHead";
import { Button } from "../../ui/Button";
import { useJoining } from "../../ui/Joining";
import { type CellMark, PaintTable } from "../../ui/PaintTable";
import { Empty } from "../../ui/Panel";
import { SearchField } from "../../ui/SearchField";
import { stripsText } from "../rulers/kinds";
import { BetweenDialog } from "./BetweenDialog";
import { HouseStarts } from "./HouseStarts";
import { PanKeys } from "./PanKeys";

/** What goes where: channels, returns and groups against house, mono and groups, painted. */
export function RoutingView() {
  const link = useLink();
  const [filter, setFilter] = useState("");
  const [between, setBetween] = useState(false);
  const [taken, setTaken] = useState<readonly string[]>([]);
  const { join, bar } = useJoining();
  const rows = useRows(filter);
  const groups = useShow((state) => state.groups);
  const columns = useMemo(() => ["house", "mono", ...groups.map((n) => `group/${n}`)], [groups]);
  const empty = useShow((state) => state.channels.length === 0);
  const onAsk = useCallback((ask: Ask) => void join(ask), [join]);
  const pan = (strips: readonly string[], place: string) =>
    void link.do({ action: "pan_strips", strips: stripsText(strips), place });
  const several = taken.length > 1 ? stripsText(taken.filter((one) => !one.startsWith("g"))) : "";
  return (
    <>
      <ViewHead title="Routing">
        <Button tone="main" onClick={() => setBetween(true)} disabled={empty}>
          Put a group in between…
        </Button>
        <Free of={["groups"]} />
        <RouteLink
          to="/wrong/promises"
          className="text-sun-text underline coarse:h-11 inline-flex items-center"
        >
          Promises
        </RouteLink>
      </ViewHead>
      <BetweenDialog open={between} onOpenChange={setBetween} strips={several} />
      {empty ? (
        <Empty title="Nothing to route yet">
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
            <PanKeys strips={taken} onPan={(place) => pan(taken, place)} />
            <HouseStarts />
            <span className="text-faint text-[13px] narrow:hidden">
              Paint by dragging, or arrows and Space. L, C, R place what is taken.
            </span>
          </div>
          <PaintTable
            label="Strips against house, mono and groups"
            rows={rows}
            columns={columns}
            width={86}
            headHeight={64}
            headWord="Strip, and its place"
            head={(bus) => <BusHead key={bus} bus={bus} />}
            rowEnd={placeOf}
            marks={feeds}
            words={WORDS}
            draw={drawn}
            onTake={setTaken}
            onOwnKey={(event, strips) => {
              const places = actOf("routing", event) === "place";
              if (places) pan(strips, PLACES[event.key.toLowerCase() as keyof typeof PLACES]);
              return places;
            }}
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

function useRows(filter: string): readonly string[] {
  const channels = useShow((state) => state.channels);
  const returns = useShow((state) => state.returns);
  const groups = useShow((state) => state.groups);
  return useMemo(() => {
    const said = hasPhrase(filter);
    const state = store.getState(); // names as they are when one types
    return [
      ...channels.map((n) => `channel/${n}`),
      ...returns.map((n) => `return/${n}`),
      ...groups.map((n) => `group/${n}`),
    ].filter((strip) => said(`${stripName(state, strip)} ${inWords(strip)}`));
  }, [channels, returns, groups, filter]);
}

const PLACES = { l: "L100", c: "C", r: "R100" } as const;
const WORDS = { m: "feeds it", r: "", ".": "does not feed it", "-": "cannot" } as const;

/** Which buses a strip feeds behind its fader; none feeds itself. */
const feeds = (state: ShowState, strip: string, buses: readonly string[]): string =>
  buses
    .map((bus) => (strip === bus ? "-" : valueIn(state, `${strip}/${bus}/on`) === true ? "m" : "."))
    .join("");

const placeOf = (strip: string) => <PlaceText strip={strip} />;
const drawn = (mark: CellMark, bus: string) => (mark === "m" ? <Feed bus={bus} /> : null);

function PlaceText({ strip }: { strip: string }) {
  const text = useShow((state) => panText(Number(valueIn(state, `${strip}/pan`))));
  return <span className={text === "C" ? "text-faint" : "text-soft"}>{text}</span>;
}

function Feed({ bus }: { bus: string }) {
  const colour = useShow((state) => colourOf(state, bus, "sea"));
  return (
    <span aria-hidden className="flex items-center w-10">
      <span className="drawn flex-1 h-[3px]" style={{ background: `var(--strip-${colour})` }} />
      <span
        className="drawn w-3.5 h-3.5 rounded-full"
        style={{ background: `var(--mark-${colour})`, outline: `2px solid var(--strip-${colour})` }}
      />
    </span>
  );
}

/** Head of a column: the bus, which leads to its strip. */
function BusHead({ bus }: { bus: string }) {
  const name = useShow((state) => stripName(state, bus));
  const colour = useShow((state) => colourOf(state, bus, "sea"));
  const { kind, number } = thingOf(bus);
  return (
    <div
      role="columnheader"
      data-column-head={bus}
      className="shrink-0 flex flex-col justify-end px-1.5 pb-1 border-r border-ink"
      style={{ width: 86, borderTop: `4px solid var(--strip-${colour})` }}
    >
      <RouteLink
        to={`/strip/${bus}`}
        title={`Open strip ${name}`}
        className="in-text text-[13px] leading-tight font-semibold line-clamp-2 break-words hover:underline"
      >
        {name}
      </RouteLink>
      <span className="text-faint text-[12px]">{number ? `${kind} ${number}` : "main"}</span>
    </div>
  );
}
