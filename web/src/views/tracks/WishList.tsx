import type { KeyboardEvent } from "react";
import type { Tracks, WishRow } from "../../data/types";
import { useLink, useShow } from "../../data/use";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Empty } from "../../ui/Panel";
import { InRow, useRows } from "../../ui/reach";
import { TypedField } from "../../ui/TypedField";

const TAPS = [
  ["input", "raw"],
  ["before_fader", "processed"],
  ["after_fader", "as heard"],
] as const;
const OF_BUS = TAPS.slice(1);
/** So many that cannot stand together are marked: of more the count says it. */
const MOST_MARKED = 6;
const SIDES = [
  ["stereo", "stereo"],
  ["mono", "mono"],
] as const;
const RANKS = [0, 1, 2, 3, 4, 5].map(
  (rank) => [String(rank), rank === 0 ? "must" : `if room, ${rank}`] as const,
);

/** All wishes, in the order that decides where they stand, each with its track. */
export function WishList({ told }: { told: Tracks }) {
  const keys = told.wishes.map((one) => one.wish);
  const rows = useRows(keys);
  const found = useShow((state) => state.plan);
  const clashing = (found?.basis === told.basis ? found.clashes : [])
    .filter((one) => one.wishes.length <= MOST_MARKED)
    .flatMap((one) => one.wishes);
  if (keys.length === 0)
    return (
      <div style={{ gridArea: "wishes" }}>
        <Empty title="Nothing is to be recorded yet">
          <p>
            Say what, above: all lines raw for tomorrow's sound check; channels processed, effects
            and the house as heard for a mix. Then find the plan: which source stands on which
            track.
          </p>
        </Empty>
      </div>
    );
  return (
    <section aria-label="Wishes" style={{ gridArea: "wishes" }} className="min-w-0 flex flex-col">
      <div aria-hidden className="row-wish row-heads text-[12px] text-faint px-2 pb-1">
        <span className="text-right">No.</span>
        <span>To be recorded</span>
        <span className="pl-1.5">Taken</span>
        <span className="pl-1.5">Sides</span>
        <span className="pl-1.5">Must</span>
        <span className="text-right pr-1.5">Wants</span>
        <span className="text-right">Is on</span>
        <span />
      </div>
      <ul {...rows.hand} className="flex flex-col gap-[3px]">
        {told.wishes.map((wish, place) => (
          <InRow key={wish.wish} of={wish.wish} rows={rows}>
            <Row wish={wish} place={place} all={keys} clashes={clashing.includes(wish.wish)} />
          </InRow>
        ))}
      </ul>
    </section>
  );
}

interface RowProps {
  wish: WishRow;
  place: number;
  all: readonly string[];
  clashes: boolean;
}

function Row({ wish, place, all, clashes }: RowProps) {
  const link = useLink();
  const name = wish.name;
  const put = (leaf: string, value: string | number | boolean) =>
    void link.put(`${wish.wish}/${leaf}`, value);
  const move = (by: -1 | 1) => {
    const before = all[by < 0 ? place - 1 : place + 2] ?? null;
    if (by < 0 ? place > 0 : place < all.length - 1)
      void link.do({ action: "move_wish", wish: wish.wish, before });
  };
  const onKey = (event: KeyboardEvent) => {
    if (!event.altKey || (event.key !== "ArrowUp" && event.key !== "ArrowDown")) return;
    event.preventDefault();
    move(event.key === "ArrowUp" ? -1 : 1);
  };
  return (
    <li
      data-row={wish.wish}
      data-wish={wish.wish}
      onKeyDown={onKey}
      className={`row-wish rounded-md px-2 min-h-8 ${clashes ? "bg-card outline outline-1 outline-coral" : "bg-card"}`}
    >
      <span className="text-faint text-right tabular-nums" style={{ gridArea: "place" }}>
        {place + 1}
      </span>
      <span
        className={`truncate ${wish.refused ? "text-coral" : "font-semibold"}`}
        style={{ gridArea: "name" }}
        dir="auto"
        title={wish.refused || name}
      >
        {name}
      </span>
      <Choice
        area="tap"
        label={`Where ${name} is taken`}
        value={wish.tap}
        options={wish.raw ? TAPS : wish.tap === "input" ? TAPS : OF_BUS}
        onChange={(tap) => put("tap", tap)}
        className="text-[13px] coarse:h-11"
      />
      {wish.two_sides || wish.stereo ? (
        <Choice
          area="sides"
          label={`Sides of ${name}`}
          value={wish.stereo ? "stereo" : "mono"}
          options={SIDES}
          onChange={(sides) => put("stereo", sides === "stereo")}
          className="text-[13px] coarse:h-11"
        />
      ) : (
        <span className="text-faint text-[13px] pl-1.5" style={{ gridArea: "sides" }}>
          mono
        </span>
      )}
      <Choice
        area="rank"
        label={`Whether ${name} must be recorded`}
        value={String(wish.rank)}
        options={wish.rank > 5 ? [...RANKS, [String(wish.rank), `if room, ${wish.rank}`]] : RANKS}
        onChange={(rank) => put("rank", Number(rank))}
        className={`text-[13px] coarse:h-11 ${wish.rank ? "text-soft" : ""}`}
      />
      <TypedField
        area="track"
        label={`Track that ${name} must have`}
        value={wish.track ? String(wish.track) : ""}
        placeholder="any"
        align="right"
        onCommit={(text) =>
          void link.type(`${wish.wish}/track`, /^\s*(any)?\s*$/i.test(text) ? "0" : text)
        }
        data={{ "data-column": "track" }}
        className="coarse:h-11"
      />
      <Given wish={wish} />
      <Button
        small
        tone="quiet"
        aria-label={`Do not record ${name}`}
        title="Take it out of the list"
        onClick={() => void link.do({ action: "remove_wishes", wishes: [wish.wish] })}
      >
        ×
      </Button>
    </li>
  );
}

/** Its track, as it stands now. */
function Given({ wish }: { wish: WishRow }) {
  const tracks = wish.stereo ? `${wish.given}–${wish.given + 1}` : String(wish.given);
  const says = !wish.given
    ? "on no track"
    : wish.stands
      ? `on track ${tracks}`
      : `track ${tracks} carries something else`;
  return (
    <span
      role="status"
      aria-label={says}
      title={wish.refused || says}
      className={`text-right tabular-nums whitespace-nowrap ${wish.stands ? "text-sea font-semibold" : wish.given ? "text-coral" : "text-faint"}`}
      style={{ gridArea: "given" }}
    >
      {wish.given ? `${wish.stands ? "" : "≠ "}${tracks}` : "—"}
    </span>
  );
}
