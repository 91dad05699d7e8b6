import { useState } from "react";
import { newId } from "../data/id";
import { levelText, panText } from "../data/words";
import { CallDesk } from "./CallDesk";
import type { PhoneLink, State } from "./link";
import { OF_LEVEL, OF_START, PhoneFader } from "./PhoneFader";
import type { PhoneFamily, PhoneMix, PhoneStrip } from "./types";

const WORDS: Readonly<Record<string, string>> = {
  me: "Me",
  voices: "Voices",
  drums: "Drums",
  bass: "Bass",
  strings: "Strings",
  keys: "Keys",
  brass: "Brass",
  effects: "Room and effects",
  playback: "Playback",
  cues: "Click and cues",
  groups: "Groups",
  unsorted: "Others",
};
const COLOURS: Readonly<Record<string, string>> = {
  me: "amber",
  voices: "rose",
  drums: "coral",
  bass: "sky",
  strings: "sea",
  keys: "iris",
  brass: "moss",
  effects: "slate",
  playback: "iris",
  cues: "coral",
};

interface Props {
  mix: PhoneMix;
  state: State;
  link: PhoneLink;
}

/** One mix on its performer's phone: families first, oneself on top; one press unfolds a family. */
export function PhoneView({ mix, state, link }: Props) {
  const [open, setOpen] = useState<string | null>(null);
  const locked = mix.locked;
  const move = (of: string) => (place: number | null, gesture: string) =>
    link.move({ action: "to_place", mix: mix.mix, of, place }, gesture);
  const start = (of: string) => () => link.move({ action: "to_start", mix: mix.mix, of }, newId());
  return (
    <>
      {locked && (
        <p role="status" className="mx-3 mb-2 px-4 py-3 rounded-xl border-2 border-iris bg-floor">
          <strong className="text-iris">Locked by the desk.</strong> {mix.lock_reason}
          <span className="block text-soft">Nothing moves, and nothing waits for later.</span>
        </p>
      )}
      <div className="flex-1 min-h-0 flex flex-col low:flex-row">
        <main className="flex-1 min-h-0 overflow-y-auto px-3 flex flex-col gap-1.5 pb-2">
          {mix.families.length === 0 && (
            <p className="text-soft text-center p-8">
              Nothing is sent to you yet. The desk opens what you need; ask for it.
            </p>
          )}
          {mix.families.map((family) => (
            <Family
              key={family.family}
              family={family}
              mix={mix}
              open={open === family.family}
              onOpen={() => setOpen(open === family.family ? null : family.family)}
              locked={locked}
              finger={state.finger?.mix === mix.mix ? state.finger : null}
              move={move}
              start={start}
              onPan={(strip, pan) =>
                link.move({ action: "to_pan", mix: mix.mix, of: strip, pan }, newId())
              }
            />
          ))}
        </main>
        <Foot mix={mix} state={state} link={link} locked={locked} onStart={start("everything")} />
      </div>
    </>
  );
}

interface FamilyProps {
  family: PhoneFamily;
  mix: PhoneMix;
  open: boolean;
  onOpen: () => void;
  locked: boolean;
  finger: State["finger"];
  move: (of: string) => (place: number | null, gesture: string) => void;
  start: (of: string) => () => void;
  onPan: (strip: string, pan: number) => void;
}

function Family({ family, mix, open, onOpen, locked, finger, move, start, onPan }: FamilyProps) {
  const me = family.family === "me";
  const word = WORDS[family.family] ?? family.family;
  const colour = COLOURS[family.family] ?? "sand";
  const off = family.place_db === null || family.strips.every((one) => one.position_db === null);
  const shown = off ? null : family.position_db;
  const touched =
    finger?.of === family.family || family.strips.some((one) => one.strip === finger?.of);
  const on = touched ? (finger?.who ?? "") : "";
  const silent = family.strips.filter((one) => one.silent).map((one) => one.name);
  return (
    <section aria-label={word} className="flex flex-col gap-1.5">
      <div className="flex gap-2">
        <PhoneFader
          name={word}
          note={
            on
              ? `${on} moves it`
              : silent.length > 0
                ? `silent now: ${silent.join(", ")}`
                : undefined
          }
          touched={on !== ""}
          colour={colour}
          large={me}
          shown={family.started ? shown : null}
          place={off ? null : family.place_db}
          law={family.started ? OF_START : OF_LEVEL}
          mark={family.started ? 0 : null}
          says={family.started || off ? placeText(family.started, shown) : ""}
          disabled={locked}
          onMove={move(family.family)}
          onStart={start(family.family)}
        />
        {me && family.strips.length < 2 ? (
          <button
            type="button"
            disabled={locked}
            onClick={() => move("me")(off ? 0 : null, newId())}
            className="w-[60px] rounded-xl bg-raise leading-tight text-[14px] disabled:opacity-50"
          >
            {off ? "me back" : "mute me"}
          </button>
        ) : (
          <button
            type="button"
            aria-expanded={open}
            aria-label={`${open ? "Fold" : "Unfold"} ${word}`}
            onClick={onOpen}
            className="w-[60px] rounded-xl bg-raise text-[20px]"
          >
            {open ? "\u2303" : "\u2304"}
          </button>
        )}
      </div>
      {open && (
        <div
          className="ml-3 pl-2 border-l-2 flex flex-col gap-1.5"
          style={{ borderColor: `var(--strip-${colour})` }}
        >
          {me && (
            <button
              type="button"
              disabled={locked}
              onClick={() => move("me")(off ? 0 : null, newId())}
              className="h-11 rounded-xl bg-raise text-[15px] disabled:opacity-50"
            >
              {off ? "me back" : "mute me"}
            </button>
          )}
          {family.strips.map((strip) => (
            <Strip
              key={strip.strip}
              strip={strip}
              stereo={mix.stereo}
              colour={colour}
              locked={locked}
              onMove={move(strip.strip)}
              onStart={start(strip.strip)}
              onPan={(pan) => onPan(strip.strip, pan)}
            />
          ))}
        </div>
      )}
    </section>
  );
}

/** Where a fader stands, against its start where it has one. */
function placeText(started: boolean, db: number | null): string {
  if (db === null) return "off";
  if (!started) return levelText(db);
  return Math.abs(db) < 0.05 ? "at the start" : levelText(db).replace(/^(?=\d)/, "+");
}

function Strip({
  strip,
  stereo,
  colour,
  locked,
  onMove,
  onStart,
  onPan,
}: {
  strip: PhoneStrip;
  stereo: boolean;
  colour: string;
  locked: boolean;
  onMove: (place: number | null, gesture: string) => void;
  onStart: () => void;
  onPan: (pan: number) => void;
}) {
  const { started, position_db: shown } = strip;
  return (
    <div className="flex gap-2">
      <PhoneFader
        name={strip.name}
        note={strip.silent || undefined}
        colour={colour}
        shown={shown}
        place={shown === null ? null : strip.place_db}
        law={started ? OF_START : OF_LEVEL}
        mark={started ? 0 : null}
        end={strip.end_db}
        says={placeText(started, shown)}
        disabled={locked}
        onMove={onMove}
        onStart={onStart}
      />
      {stereo && (
        <label className="w-[60px] rounded-xl bg-raise flex flex-col items-center justify-center text-[13px] leading-tight">
          {panText(strip.pan)}
          <input
            type="range"
            aria-label={`Place of ${strip.name}`}
            aria-valuetext={panText(strip.pan)}
            min={-1}
            max={1}
            step={0.05}
            disabled={locked}
            value={strip.pan}
            onChange={(event) => onPan(Number(event.currentTarget.value))}
            className="w-12 h-6 accent-(--sun)"
          />
        </label>
      )}
    </div>
  );
}

function Foot({
  mix,
  state,
  link,
  locked,
  onStart,
}: Props & { locked: boolean; onStart: () => void }) {
  const level = (place: number | null, gesture: string) =>
    link.move({ action: "to_level", mix: mix.mix, level: place }, gesture);
  const by = (step: number) => link.move({ action: "to_level", mix: mix.mix, by: step }, newId());
  const ceiling = mix.ceiling_db;
  const says =
    (mix.fader_db === null ? "off" : levelText(mix.fader_db)) +
    (ceiling === null ? "" : `, ceiling ${levelText(ceiling)}`);
  const key = "h-12 flex-1 rounded-xl bg-raise text-[15px] disabled:opacity-50 px-1 leading-tight";
  return (
    <footer className="shrink-0 border-t border-line bg-floor px-3 pt-2 pb-3 flex flex-col gap-2 low:w-[320px] low:overflow-y-auto low:border-t-0 low:border-l">
      {state.says && (
        <div role="alert" className="flex items-center gap-2 pl-3 rounded-xl border border-coral">
          <p className="flex-1 py-2 text-[15px]">{state.says}</p>
          <button
            type="button"
            className="h-11 px-4 text-soft text-[15px]"
            onClick={() => link.read()}
          >
            Seen
          </button>
        </div>
      )}
      <div className="flex">
        <PhoneFader
          name="Everything"
          colour="sand"
          shown={mix.fader_db}
          place={mix.fader_db}
          law={OF_LEVEL}
          bare
          note={says}
          mark={mix.start_fader_db}
          end={ceiling}
          says={says}
          disabled={locked}
          onMove={level}
          onStart={() => mix.started && level(mix.start_fader_db, newId())}
        />
      </div>
      <div className="flex gap-2">
        <button type="button" className={key} disabled={locked} onClick={() => by(-2)}>
          All softer
        </button>
        <button type="button" className={key} disabled={locked} onClick={() => by(2)}>
          All louder
        </button>
        <button type="button" className={key} disabled={locked} onClick={() => link.turn("undo")}>
          Undo
        </button>
        <button type="button" className={key} disabled={locked || !mix.started} onClick={onStart}>
          Start over
        </button>
      </div>
      <CallDesk mix={mix.mix} state={state} link={link} />
    </footer>
  );
}
