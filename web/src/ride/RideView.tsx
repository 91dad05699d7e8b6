import { newId } from "../data/id";
import { levelText } from "../data/words";
import { type Law, PhoneFader } from "../phone/PhoneFader";
import type { RideLink, Rides } from "./RideApp";

type Fader = Rides["faders"][number];
type Key = Rides["keys"][number];

const DEEPEST = -60;

/** Where a fader between its ends lies along its way; drawing alone. */
function lawOf({ lowest_db, highest_db }: Fader): Law {
  const low = lowest_db ?? Math.min(DEEPEST, highest_db - 20);
  // without an end below, the last part of the way is off
  return [
    [low, lowest_db === null ? 0.06 : 0],
    [highest_db, 1],
  ];
}

const stateOf = (fader: Fader): string | undefined =>
  fader.muted ? "muted" : fader.silent ? "silent in the house now" : undefined;

/** Faders and keys as large as a thumb; what somebody else moves moves here too. */
export function RideView({ told, says, link }: { told: Rides; says: string; link: RideLink }) {
  const { faders, keys } = told;
  const of = [...new Set(keys.map((key) => key.of))];
  return (
    <main className="relative flex-1 min-h-0 overflow-y-auto px-3 flex flex-col gap-3 pb-2">
      {says && (
        <button
          type="button"
          onClick={() => link.read()}
          className="px-4 py-3 rounded-xl border border-coral text-coral text-left"
        >
          <span role="alert">{says}</span>
        </button>
      )}
      {faders.length + keys.length === 0 && (
        <p className="text-soft text-center p-8">
          Nothing is given to you yet. The engineer does that; it comes by itself.
        </p>
      )}
      {faders.map((fader) => (
        <div key={fader.what} data-what={fader.what} className="flex flex-col gap-1">
          <div className="flex">
            <PhoneFader
              name={fader.name}
              note={stateOf(fader)}
              colour={fader.colour}
              shown={fader.level_db}
              place={fader.level_db}
              law={lawOf(fader)}
              mark={null}
              says={fader.level_db === null ? "off" : levelText(fader.level_db)}
              large
              onMove={(level, gesture) =>
                link.move({ action: "ride_fader", what: fader.what, level }, gesture)
              }
              onRelease={(gesture) => link.letGo(gesture)}
            />
          </div>
          <p className="flex justify-between px-1 text-[13px] text-soft" aria-hidden>
            <span>{fader.lowest_db === null ? "off" : levelText(fader.lowest_db)}</span>
            <span>{levelText(fader.highest_db)}</span>
          </p>
        </div>
      ))}
      {of.map((one) => (
        <section key={one} aria-label={one === "mute" ? "Mutes" : one}>
          <h2 dir="auto" className="text-[13px] text-soft pb-1.5">
            {one === "mute" ? "Mutes" : `${one}: who leads`}
          </h2>
          <div className="grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-2">
            {keys
              .filter((key) => key.of === one)
              .map((key) => (
                <RideKey key={key.what + key.strip} of={key} link={link} />
              ))}
          </div>
        </section>
      ))}
    </main>
  );
}

function RideKey({ of, link }: { of: Key; link: RideLink }) {
  const mute = of.strip === "";
  const press = () =>
    link.move(
      mute
        ? { action: "ride_key", what: of.what, on: !of.on }
        : { action: "ride_lift", what: of.what, strip: of.strip, on: !of.on },
      newId(),
    );
  const word = mute ? (of.on ? "muted" : "open") : of.on ? "leads" : "with the others";
  return (
    <button
      type="button"
      aria-pressed={of.on}
      onClick={press}
      className={`relative min-h-[76px] rounded-xl border-2 px-3 py-2 text-left flex flex-col justify-center ${
        of.on
          ? mute
            ? "bg-blocked text-coral border-coral"
            : "bg-sun text-on-sun border-sun"
          : "bg-card border-edge text-paper"
      }`}
    >
      {mute && <span className="sr-only">Mute </span>}
      <span dir="auto" className="font-semibold text-[17px] [overflow-wrap:anywhere]">
        {of.name}
      </span>
      <span className="sr-only">, </span>
      <span className={`text-[13px] ${of.on ? "" : "text-soft"}`}>{word}</span>
    </button>
  );
}
