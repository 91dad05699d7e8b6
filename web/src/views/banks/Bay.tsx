import { type PointerEvent, useCallback, useMemo, useReducer, useRef, useState } from "react";
import { kindOf } from "../../data/address";
import { useLink, useShow } from "../../data/use";
import { useKeys } from "../../ui/keys";
import { InRow, useRows } from "../../ui/reach";
import { BankFader } from "./BankFader";
import { BankScale } from "./BankScale";
import { EditBank } from "./EditBank";
import { useLying, useUnderHands } from "./lying";
import { type BayView, calling, folded, unfolding } from "./surface";

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
  const kinds = useShow((state) => state.desk!.unfolding);
  const places = Array.from({ length: faders }, (_, index) => index + 1);
  const { fixed, addresses, called, trail, ...lying } = useLying(number, faders, view);
  const top = trail.at(-1)?.thing ?? null;
  const catalogue = useShow((state) => state.catalogue!);
  const [, drawAgain] = useReducer((turn: number) => turn + 1, 0);
  const { shown, keep, free } = useUnderHands(lying.shown, drawAgain);
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
    const at = (one: number) => addresses[one - 1]!;
    const holds = (one: number) => called[one - 1] || null;
    void link.do({
      action: "moves",
      moves: [
        { address: at(place), value: holds(from) },
        { address: at(from), value: holds(place) },
      ],
    });
  };
  const onFold = (strip: string, place: number) =>
    onView(
      strip === top
        ? folded({ ...view, unfolded: trail })
        : unfolding({ ...view, unfolded: trail }, strip, fixed[place - 1] ? 0 : place),
    );
  // a hand on a fader: what lies there stays until it lets go
  const onHand = (event: PointerEvent, place: number, strip: string) => {
    if (event.target instanceof Element && event.target.closest("[role=slider]"))
      keep(place, strip);
  };
  const drawn = (place: number) => {
    const index = place - 1;
    const strip = shown[index] ?? "";
    const movable = editing && !top && !fixed[index];
    return (
      <div
        key={place}
        data-row={lies(place) ? place : undefined}
        className={`flex flex-1 min-w-[58px] max-w-[92px] flex-col rounded-xl ${movable ? "outline-1 outline-dashed outline-edge" : ""}`}
        onPointerDownCapture={(event) => onHand(event, place, strip)}
        onPointerUp={() => free(place)}
        onPointerCancel={() => free(place)}
        onLostPointerCapture={() => free(place)}
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
              place={place}
              folds={strip === top}
              onFold={kinds.includes(kindOf(strip)) ? onFold : null}
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
      {editing && (
        <EditBank bay={number} bank={view.bank} onMade={(bank) => onView(calling(bank))} />
      )}
      <div
        role="group"
        aria-label={`Faders of ${name}`}
        className="scrolls flex-1 min-h-0 short:min-h-96 flex"
        {...rows.hand}
      >
        <div className="flex gap-0.5 flex-1 min-h-72 phone:min-h-[400px] min-w-0" data-wide>
          {!editing && <BankScale />}
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
