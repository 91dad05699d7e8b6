import { useEffect, useState } from "react";
import { Link as RouteLink } from "wouter";
import { memberFor } from "../../data/gangs";
import { store } from "../../data/show";
import { useBusOptions, useLink, useShow, useText } from "../../data/use";
import { SoloMode } from "../../frame/SoloPill";
import { useViewKeys } from "../../frame/useViewKeys";
import { ViewHead } from "../../frame/ViewHead";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { MuteGroupKeys } from "../../ui/MuteGroupKeys";
import { usePhone, useRoomy } from "../../ui/media";
import { Empty } from "../../ui/Panel";
import { useAsked } from "../../ui/useAsked";
import { AloneKey } from "./AloneKey";
import { BankKeys } from "./BankKeys";
import { Bay } from "./Bay";
import { BayTrail } from "./BayTrail";
import { type BayView, calling, folded, liesOn, unfolding, useSurface, viewOfBay } from "./surface";

const MOST_MUTES = 8; // more stand in Mutes

/** The surface: bays of faders, each showing a bank, what is unfolded, or a listener's sends. */
export function BanksView() {
  const link = useLink();
  const bays = useShow((state) => state.desk!.bays);
  const banks = useShow((state) => state.banks);
  const strips = useShow((state) => state.channels.length);
  const [surface, change] = useSurface();
  const mode = useText("show/solo");
  const [editing, setEditing] = useState(false);
  const phone = usePhone();
  const [more, setMore] = useState(false); // on a phone the faders have the room
  const shown = Math.min(surface.bay, bays.length);
  const mixes = useBusOptions("mix");
  const listen = mixes.some(([mix]) => mix === surface.listen) ? surface.listen : null;
  const views = bays.map((_, index) => viewOfBay(surface, index + 1, banks));
  const unfold = [
    ...new Set(views.flatMap((view) => view.unfolded.slice(-1).map((one) => one.thing))),
  ]
    .sort()
    .join(" ");
  useEffect(() => {
    link.watch({ levels: true, unfold: unfold.split(" ").filter(Boolean) });
  }, [link, unfold]);
  useEffect(() => () => link.watch({ levels: false, unfold: [] }), [link]);

  const setBay = (bay: number, view: BayView) =>
    change({ bays: { ...surface.bays, [bay]: view }, bay });
  // a bank that was looked for is called on the bay in sight, and what was to be unfolded is, there too
  useAsked(
    "bank",
    (bank) => banks.includes(Number(bank)),
    (bank) => setBay(shown, calling(Number(bank))),
  );
  const members = useShow((state) => state.members);
  useAsked(
    "unfold",
    (thing) => (members.get(thing)?.size ?? 0) > 0,
    (thing) => setBay(shown, unfolding({ ...views[shown - 1]!, unfolded: [] }, thing, 0)),
  );
  const toHand = useToHand();
  useAsked(
    "hand",
    (strip) => liesOn(store.getState(), surface, strip) !== null,
    (strip) => {
      const lies = liesOn(store.getState(), surface, strip)!;
      const { bay, bank, page } = lies;
      const there = viewOfBay(surface, bay, banks);
      setBay(bay, bank === null ? there : calling(bank, page));
      toHand(memberFor(store.getState(), strip));
    },
  );
  const view = views[shown - 1]!;
  useViewKeys("banks", {
    call: (event) => {
      const bank = banks[Number(event.key) - 1];
      if (bank) setBay(shown, calling(bank));
    },
    fold: () => {
      if (view.unfolded.length > 0) setBay(shown, folded(view));
    },
  });

  const both = useRoomy() && bays.length > 1;
  const drawn = both ? bays.map((_, index) => index + 1) : [shown];
  const empty = banks.length === 0 && !editing;
  const trailOf = (number: number) => (
    <BayTrail
      number={number}
      faders={bays[number - 1]!.faders}
      view={views[number - 1]!}
      onView={(view) => setBay(number, view)}
    />
  );
  const edit = (
    <Button aria-pressed={editing} onClick={() => setEditing(!editing)}>
      {editing ? "Done" : "Edit banks"}
    </Button>
  );
  const settings = (
    <>
      <span className="ml-auto phone:hidden" />
      <AloneKey />
      {listen === null && (
        <span className="flex items-center gap-1.5 text-faint">
          Solo
          <SoloMode mode={mode} />
        </span>
      )}
      {mixes.length > 0 && (
        <span className={`flex items-center gap-1.5 ${listen ? "text-iris" : "text-faint"}`}>
          Faders
          <Choice
            boxed
            label="Faders as"
            value={listen ?? ""}
            options={[
              ["", "as the house has it"],
              ...mixes.map(([mix, name]) => [mix, `sends into ${name}`] as const),
            ]}
            className="max-w-52"
            onChange={(mix) => change({ listen: mix || null })}
          />
        </span>
      )}
    </>
  );
  return (
    <>
      <ViewHead title="Banks">
        <span className="ml-auto" />
        {phone && (
          <Button aria-pressed={more} aria-expanded={more} onClick={() => setMore(!more)}>
            More
          </Button>
        )}
        {!phone && edit}
      </ViewHead>
      <div className="flex items-center gap-x-3 gap-y-1.5 flex-wrap phone:flex-nowrap scrolls-x pb-2 shrink-0">
        {bays.length > 1 && !both && (
          <span className="flex shrink-0" role="group" aria-label="Side of the surface">
            {bays.map((bay, index) => (
              <button
                key={bay.name}
                type="button"
                aria-pressed={index + 1 === shown}
                onClick={() => change({ bay: index + 1 })}
                className={`h-9 coarse:h-11 px-3 border border-edge cursor-pointer first:rounded-l-xl last:rounded-r-xl -ml-px first:ml-0 ${index + 1 === shown ? "bg-raise font-semibold" : "text-soft hover:text-paper"}`}
              >
                {bay.name}
              </button>
            ))}
          </span>
        )}
        {!both && !empty && <BankKeys view={view} onView={(view) => setBay(shown, view)} />}
        {phone ? null : settings}
      </div>
      {phone && more && (
        <div className="flex items-center gap-2 flex-wrap pb-2 shrink-0">
          {edit}
          {settings}
        </div>
      )}
      {empty ? (
        <Empty title="No bank yet">
          <p>A bank says which strip lies under which fader. Name some, then type their strips.</p>
          <Button tone="main" onClick={() => setEditing(true)}>
            Make banks
          </Button>
          {strips === 0 && (
            <RouteLink to="/patch" className="text-sun-text underline">
              First give channels a source, in Patch
            </RouteLink>
          )}
        </Empty>
      ) : (
        <div className="flex-1 min-h-0 short:min-h-[29rem] short:flex-none flex gap-4">
          {drawn.map((number) => (
            <section
              key={number}
              aria-label={bays[number - 1]!.name}
              className="flex-1 min-w-0 min-h-0 flex flex-col"
              onPointerDownCapture={() => number !== shown && change({ bay: number })}
              onFocusCapture={() => number !== shown && change({ bay: number })}
            >
              {!both && (
                <div className="min-h-8 coarse:min-h-11 phone:min-h-0 flex items-center pb-1">
                  {trailOf(number)}
                </div>
              )}
              {both && (
                <div className="flex items-center gap-2 flex-wrap pb-2">
                  <h2
                    className={`font-semibold ${number === shown ? "text-sun-text" : "text-soft"}`}
                  >
                    {bays[number - 1]!.name}
                  </h2>
                  <BankKeys view={views[number - 1]!} onView={(view) => setBay(number, view)} />
                  {trailOf(number)}
                </div>
              )}
              <Bay
                number={number}
                name={bays[number - 1]!.name}
                faders={bays[number - 1]!.faders}
                view={views[number - 1]!}
                listen={listen}
                editing={editing}
                onView={(view) => setBay(number, view)}
              />
            </section>
          ))}
        </div>
      )}
      <MuteGroupKeys
        most={MOST_MUTES}
        className="flex items-center gap-1.5 pt-2 shrink-0 flex-wrap phone:flex-nowrap scrolls-x"
      >
        <span className="text-faint pr-1.5 phone:hidden">Mute</span>
      </MuteGroupKeys>
    </>
  );
}

/** Puts a strip's fader into the hand as soon as it is drawn. */
function useToHand(): (strip: string) => void {
  const [strip, setStrip] = useState<string | null>(null);
  useEffect(() => {
    if (!strip) return;
    const fader = document.querySelector<HTMLElement>(
      `[data-bank-strip="${strip}"] [role="slider"]`,
    );
    fader?.scrollIntoView({ inline: "nearest", block: "nearest" });
    fader?.focus();
    setStrip(null);
  }, [strip]);
  return setStrip;
}
