import { useCallback, useMemo, useRef, useState } from "react";
import { kindOf, thingOf } from "../../data/address";
import { memberFor } from "../../data/gangs";
import { valueIn } from "../../data/show";
import { stripName, useLink, useShow } from "../../data/use";
import { Button } from "../../ui/Button";
import { useKeys } from "../../ui/keys";
import { InRow, useRows } from "../../ui/reach";
import { BankFader } from "./BankFader";
import { EditBank } from "./EditBank";
import type { BayView } from "./surface";

const MOST_STICKING = 3;

interface Props {
  number: number;
  name: string;
  faders: number;
  view: BayView;
  listen: string | null;
  editing: boolean;
  onView: (view: BayView) => void;
}

/** One side of the surface: its faders, and what is unfolded there. */
export function Bay({ number, name, faders, view, listen, editing, onView }: Props) {
  const link = useLink();
  const unfolding = useShow((state) => state.desk!.unfolding);
  const places = Array.from({ length: faders }, (_, index) => index + 1);
  const fixed = usePlaces(places.map((place) => `bay/${number}/fixed/${place}`));
  const called = usePlaces(places.map((place) => `bank/${view.bank}/${number}/${place}`));
  const trail = useThere(view.unfolded);
  const top = trail.at(-1) ?? null;
  const members = useShow((state) => (top ? state.unfolded[top] : undefined));
  const catalogue = useShow((state) => state.catalogue!);
  const free = places.filter((place) => !fixed[place - 1]);
  const pages = members ? Math.max(1, Math.ceil(members.length / Math.max(1, free.length))) : 1;
  const page = Math.min(view.page, pages - 1);
  const lying = places.map((place) => {
    if (fixed[place - 1]) return fixed[place - 1]!;
    if (!top) return called[place - 1] ?? "";
    return members?.[page * free.length + free.indexOf(place)] ?? "";
  });
  const shown = useMembers(lying); // a pair takes one place, by its odd side
  const [taken, take] = useTaken(shown);
  const dragged = useRef<number | null>(null);
  const lies = (place: number) => {
    const strip = shown[place - 1];
    if (!strip || listen === null || strip === listen) return Boolean(strip);
    return catalogue.has(`${strip}/send/${listen}/level`);
  };
  const rows = useRows(
    places.filter(lies).map((place) => `${place}`),
    { across: true },
  );
  // a few that always lie at the end stay in sight where the others are scrolled
  const others = fixed.findLastIndex((one) => !one) + 1;
  const sticking = places.length - others <= MOST_STICKING ? places.length - others : 0;
  // two places change what they hold
  const drop = (place: number) => {
    const from = dragged.current;
    dragged.current = null;
    if (from === null || from === place) return;
    const at = (one: number) => `bank/${view.bank}/${number}/${one}`;
    const holds = (one: number) => called[one - 1] || null;
    void link.do({
      action: "moves",
      moves: [
        { address: at(place), value: holds(from) },
        { address: at(from), value: holds(place) },
      ],
    });
  };
  const unfold = (strip: string) => onView({ ...view, unfolded: [...trail, strip], page: 0 });
  const drawn = (place: number) => {
    const index = place - 1;
    const strip = shown[index] ?? "";
    const movable = editing && !top && !fixed[index];
    return (
      <div
        key={place}
        data-row={lies(place) ? place : undefined}
        className={`flex flex-1 min-w-[58px] max-w-[92px] flex-col rounded-xl ${movable ? "outline-1 outline-dashed outline-edge" : ""}`}
        onDragOver={(event) => movable && event.preventDefault()}
        onDrop={() => movable && drop(place)}
      >
        {movable && strip && (
          <span
            draggable
            onDragStart={() => {
              dragged.current = place;
            }}
            title="Drag it to another place"
            className="h-7 grid place-items-center cursor-grab text-soft text-[13px] rounded-t-xl bg-card"
          >
            ⇆
          </span>
        )}
        {lies(place) ? (
          <InRow of={`${place}`} rows={rows}>
            <BankFader
              strip={strip}
              listen={listen}
              fixed={Boolean(fixed[index])}
              onUnfold={unfolding.includes(kindOf(strip)) && strip !== top ? unfold : null}
              taken={taken.includes(strip) ? taken : null}
              onTake={take}
            />
          </InRow>
        ) : (
          <div className="flex-1 rounded-xl border border-dashed border-line m-0.5" aria-hidden />
        )}
      </div>
    );
  };
  return (
    <>
      {top && (
        <span className="flex items-center gap-2 pb-2 text-soft">
          <Trail things={trail} />
          <Button
            small
            tone="main"
            title="Escape"
            onClick={() => onView({ ...view, unfolded: trail.slice(0, -1), page: 0 })}
          >
            Back
          </Button>
          {pages > 1 && (
            <Button small onClick={() => onView({ ...view, page: (page + 1) % pages })}>
              Page {page + 1} of {pages}
            </Button>
          )}
        </span>
      )}
      {editing && (
        <EditBank
          bay={number}
          bank={view.bank}
          onMade={(bank) => onView({ bank, unfolded: [], page: 0 })}
        />
      )}
      <div
        role="group"
        aria-label={`Faders of ${name}`}
        className="scrolls flex-1 min-h-0 short:min-h-96 flex"
        {...rows.hand}
      >
        <div className="flex gap-0.5 flex-1 min-h-72 min-w-0" data-wide>
          {places.slice(0, places.length - sticking).map(drawn)}
          {sticking > 0 && (
            <div className="flex gap-0.5 sticky right-0 z-10 bg-ink" style={{ flex: sticking }}>
              {places.slice(-sticking).map(drawn)}
            </div>
          )}
        </div>
      </div>
    </>
  );
}

/** Strips with pairs by their odd side; the even takes no place of its own beside it. */
function useMembers(strips: readonly string[]): readonly string[] {
  const text = useShow((state) =>
    strips
      .map((strip) => {
        const member = memberFor(state, strip);
        return member !== strip && strips.includes(member) ? "" : member;
      })
      .join("\n"),
  );
  return useMemo(() => text.split("\n"), [text]);
}

/** Of what is unfolded, what is still there: what was deleted is folded up by that. */
function useThere(things: readonly string[]): readonly string[] {
  const text = useShow((state) =>
    things
      .filter((thing) => {
        const { kind, number } = thingOf(thing);
        return state[IN_USE[kind as keyof typeof IN_USE]].includes(Number(number));
      })
      .join("\n"),
  );
  return useMemo(() => text.split("\n").filter(Boolean), [text]);
}

const IN_USE = { dca: "dcas", gang: "gangs", group: "groups", mix: "mixes" } as const;

const NONE: readonly string[] = [];

/** Strips that are taken together, of those in sight: one more gang for a hand. */
function useTaken(shown: readonly string[]): [readonly string[], (strip: string) => void] {
  const [chosen, setChosen] = useState<readonly string[]>(NONE);
  const taken = useMemo(() => {
    const some = chosen.filter((strip) => shown.includes(strip));
    return some.length > 0 ? some : NONE;
  }, [chosen, shown]);
  const take = useCallback(
    (strip: string) =>
      setChosen((before) =>
        before.includes(strip) ? before.filter((one) => one !== strip) : [...before, strip],
      ),
    [],
  );
  useKeys((event) => {
    if (event.key === "Escape") setChosen(NONE);
  });
  return [taken, take];
}

/** What stands at some addresses, "" for nothing. */
function usePlaces(addresses: readonly string[]): readonly string[] {
  const text = useShow((state) =>
    addresses.map((address) => valueIn(state, address) ?? "").join("\n"),
  );
  return useMemo(() => text.split("\n"), [text]);
}

function Trail({ things }: { things: readonly string[] }) {
  const names = useShow((state) => things.map((thing) => stripName(state, thing)).join(" › "));
  return <span className="text-sun-text font-semibold">{names}</span>;
}
