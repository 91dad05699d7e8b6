import { type KeyboardEvent, memo } from "react";
import { inWords, isSource, numberOf, thingOf } from "../../data/address";
import { useSounding } from "../../data/fading";
import { evenOf, memberName, useGangNames, useKept } from "../../data/gangs";
import { byHand } from "../../data/hand";
import { trueLevel, useMutedBy } from "../../data/ruled";
import { colourOf, placesOf, type ShowState, store } from "../../data/show";
import { select, stripName, useLevel, useLink, useOn, useShow } from "../../data/use";
import { cellText, levelText } from "../../data/words";
import { actOf } from "../../frame/keys";
import { useTabIndex } from "../../ui/reach";
import { TypedField } from "../../ui/TypedField";
import { type Mark, travelOf } from "../../ui/travel";
import { ScaleLines } from "./BankScale";
import { useFaderHand } from "./useFaderHand";

interface Props {
  strip: string;
  /** The mix whose send lies here instead of the strip's own fader. */
  listen: string | null;
  fixed: boolean;
  /** The fader under which it lies. */
  place: number;
  /** It is what is unfolded: its key folds it up. */
  folds: boolean;
  onFold: ((strip: string, place: number) => void) | null;
  /** It is taken together with these strips, itself among them; null: it is not taken. */
  taken: readonly string[] | null;
  onTake: (strip: string) => void;
}

const NOBODY: readonly string[] = [];

const STEPS: Record<string, string> = {
  ArrowUp: "up 1",
  ArrowDown: "down 1",
  PageUp: "up 3",
  PageDown: "down 3",
  Home: "off",
  End: "0",
};
const METER_FLOOR = -60;

/** What stands below the name; "21+": the pair of 21 and the even above it. */
function wordOf(kind: string, number: number, paired: boolean): string {
  if (kind === "dca") return "DCA";
  const plus = paired ? "+" : "";
  return kind === "channel" ? `${number}${plus}` : number ? `${kind} ${number}${plus}` : "";
}

/** What arrives at a listener, from the table; null: nothing. */
function arriving(state: ShowState, strip: string, listener: string): number | null {
  const table = state.table;
  const row = table && placesOf(table.sources).get(strip);
  const column = table && placesOf(table.listeners).get(listener);
  if (table === null || row == null || column == null) return null;
  return table.level_db[row]?.[column] ?? null;
}

/**
 * One fader of a bay: the handle is the strip's own fader, the fill what it truly comes to. With
 * `listen` it is the strip's send into that mix, and the fill what that mix's listener hears.
 */
export const BankFader = memo(function BankFader(props: Props) {
  const { strip, listen, fixed, onFold, taken, onTake } = props;
  const link = useLink();
  const asSend = listen !== null && listen !== strip;
  const leaf = asSend ? `send/${listen}/level` : "fader";
  const keyLeaf = asSend ? `send/${listen}/on` : "mute";
  const address = `${strip}/${leaf}`;
  const key = `${strip}/${keyLeaf}`;
  const even = useShow((state) => evenOf(state, strip));
  const gangs = useGangNames(strip);
  const kept = useKept(address);
  const name = useShow((state) => memberName(state, strip));
  const colour = useShow((state) => colourOf(state, strip));
  const own = useSounding(address, useLevel(address));
  const pressed = useOn(key);
  const soloed = useOn(`${strip}/solo`);
  const by = useMutedBy(strip);
  const marks = useShow((state) => state.desk!.fader_marks as Mark[]);
  const level = useShow((state) =>
    asSend ? arriving(state, strip, listen) : trueLevel(state, strip),
  );
  const parts = useShow((state) =>
    asSend
      ? ""
      : (state.ruled.get(strip)?.parts ?? [])
          .map(([dca, db]) => `${stripName(state, dca)} ${cellText(db)}`)
          .join("\n"),
  );
  const shut = asSend ? !pressed : pressed;
  const silent = shut || (!asSend && by !== "") || (asSend && level === null);
  const beside = taken ?? NOBODY;
  // what is typed counts for all that are taken; a step moves them together
  const set = (at: string, typed: string) => {
    const has = (one: string) => store.getState().catalogue!.has(`${one}/${at}`);
    const strips = beside.length > 1 ? beside.filter((one) => !asSend || has(one)) : [strip];
    void link.do(byHand(strips.map((one) => ({ address: `${one}/${at}`, typed }))));
  };
  const step = (typed: string) => void link.do(byHand([{ address, typed }], { beside }));
  const hand = useFaderHand(address, marks, own, beside);
  const travel = hand.asked ?? travelOf(own, marks);
  const fill = silent ? travel : Math.min(1, travelOf(level, marks));
  const { kind, number } = thingOf(strip);
  const word = wordOf(kind, number, even !== "");

  const tabIndex = useTabIndex();
  const keyWord = asSend ? (shut ? "off" : "on") : shut ? "muted" : "mute";

  const onKey = (event: KeyboardEvent<HTMLDivElement>) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const act = actOf("banks", event);
    if (act === "mute") set(keyLeaf, pressed ? "off" : "on");
    if (act === "solo") set("solo", soloed ? "off" : "on");
    if (act === "take") onTake(strip);
    let typed = STEPS[event.key];
    if (!typed) return;
    if (event.shiftKey) typed = typed.replace("1", "0.1");
    event.preventDefault();
    step(typed);
  };
  const look = () => {
    if (isSource(strip)) select(strip, listen ?? "house");
    else if (kind !== "dca") select(null, strip);
  };
  return (
    <div
      className={`flex flex-col gap-1 flex-1 min-w-0 min-h-0 rounded-xl p-1 ${fixed ? "bg-raise" : ""} ${taken ? "outline-2 -outline-offset-2 outline-sun" : ""}`}
      data-bank-strip={strip}
      onFocus={look}
      onPointerDown={look}
    >
      <div
        ref={hand.ref}
        role="slider"
        tabIndex={tabIndex}
        aria-orientation="vertical"
        aria-label={asSend ? `${name} into ${listen}` : `Fader of ${name}`}
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={Math.round(travel * 100)}
        aria-valuetext={`${levelText(own)}${own === null ? "" : " dB"}${silent ? ", silent" : ""}`}
        data-address={address}
        onKeyDown={onKey}
        onPointerDown={hand.down}
        onPointerMove={hand.move}
        onPointerUp={hand.up}
        onPointerCancel={hand.up}
        className="relative flex-1 min-h-32 rounded-lg border border-line bg-ink overflow-hidden touch-none cursor-ns-resize"
      >
        <div
          className={`absolute inset-x-0 bottom-0 ${silent ? "hatch" : ""}`}
          style={{
            height: `${fill * 100}%`,
            borderTop: `3px solid var(--strip-${silent ? "coral" : colour})`,
            background: silent
              ? undefined
              : `color-mix(in oklab, var(--strip-${colour}) 32%, var(--ink))`,
          }}
        >
          <span
            dir="auto"
            className="block px-1 pt-0.5 text-[11.5px] leading-tight text-paper whitespace-pre-line break-words"
          >
            {silent ? "" : parts}
          </span>
        </div>
        <ScaleLines />
        {kind === "channel" && <Meter channel={number} even={even ? numberOf(even) : undefined} />}
        {(gangs || kept !== null) && (
          <span className="absolute inset-x-0 top-0 px-1 pl-2 pt-0.5 text-[11.5px] leading-tight text-iris pointer-events-none">
            {gangs && (
              <span dir="auto" className="line-clamp-2 break-words" title={`Gang: ${gangs}`}>
                {gangs}
              </span>
            )}
            {kept !== null && (
              <span className="block" title="Where its gang would have it, past its end">
                at {cellText(kept)}
              </span>
            )}
          </span>
        )}
        {silent && (
          <span
            dir="auto"
            className="absolute inset-x-0 bottom-1 px-0.5 text-center text-[11.5px] leading-tight text-coral font-semibold break-words"
          >
            {shut ? (asSend ? "send off" : "muted") : by || "silent"}
          </span>
        )}
        <span
          className="absolute left-1/2 -translate-x-1/2 translate-y-1/2 px-1.5 rounded-full border-2 border-paper bg-ink text-[12px] leading-[18px] font-semibold pointer-events-none"
          style={{ bottom: `clamp(11px, ${travel * 100}%, calc(100% - 11px))` }}
        >
          {own === null ? "off" : cellText(own)}
        </span>
      </div>
      <span
        className="h-[3px] rounded-full shrink-0"
        style={{ background: `var(--strip-${colour})` }}
        aria-hidden
      />
      <button
        type="button"
        tabIndex={tabIndex}
        aria-pressed={taken !== null}
        aria-label={`take ${name} with others`}
        title={`${name}: press to take it together with others`}
        onClick={() => onTake(strip)}
        className={`text-left text-[12px] tracking-tight font-semibold leading-tight h-[31px] coarse:h-11 cursor-pointer rounded-md hover:bg-raise ${taken ? "bg-sun text-on-sun px-1" : ""}`}
      >
        <span dir="auto" className="line-clamp-2 break-words">
          {name}
        </span>
      </button>
      <span className="flex items-baseline justify-between gap-0.5 text-[12px] tracking-tight min-w-0">
        <span
          dir="auto"
          className="text-faint truncate"
          title={even && `A pair, with ${inWords(even)}`}
        >
          {word}
        </span>
        <span
          className={`font-semibold whitespace-nowrap ${silent ? "text-coral" : level !== own ? "text-sea" : ""}`}
          title="What it comes to"
        >
          {silent ? "silent" : cellText(level)}
        </span>
      </span>
      <TypedField
        label={asSend ? `Send of ${name} in dB` : `Level of ${name} in dB`}
        value={levelText(own)}
        align="right"
        className="w-full h-7 shrink-0 text-[13px]"
        onCommit={(text) => set(leaf, text)}
      />
      <button
        type="button"
        tabIndex={tabIndex}
        aria-pressed={shut}
        aria-label={`${keyWord}, ${asSend ? "send of " : ""}${name}`}
        onClick={() => set(keyLeaf, pressed ? "off" : "on")}
        className={`h-9 min-h-6 coarse:h-11 rounded-lg border text-[12.5px] cursor-pointer ${shut ? "border-coral bg-blocked text-coral font-semibold" : "border-line bg-card text-soft"}`}
      >
        {keyWord}
      </button>
      <button
        type="button"
        tabIndex={tabIndex}
        aria-pressed={soloed}
        aria-label={`solo ${name}`}
        onClick={() => set("solo", soloed ? "off" : "on")}
        className={`h-8 min-h-6 coarse:h-11 rounded-lg border text-[12px] cursor-pointer ${soloed ? "border-sun bg-sun text-on-sun font-semibold" : "border-line bg-card text-soft hover:text-paper"}`}
      >
        solo
      </button>
      {onFold ? (
        <button
          type="button"
          tabIndex={tabIndex}
          aria-label={`${props.folds ? "fold" : "unfold"} ${name}`}
          aria-expanded={props.folds}
          onClick={() => onFold(strip, props.place)}
          className={`h-8 min-h-6 coarse:h-11 rounded-lg border text-[12px] cursor-pointer ${props.folds ? "border-sun text-sun-text" : "border-line bg-card text-soft hover:text-paper"}`}
        >
          {props.folds ? "fold" : "unfold"}
        </button>
      ) : (
        <span className="h-8 coarse:h-11" aria-hidden />
      )}
    </div>
  );
});

/** The input meter of a channel, or of the louder side of a pair, as a line at the left. */
function Meter({ channel, even }: { channel: number; even: number | undefined }) {
  const dbfs = useShow((state) =>
    Math.max(state.levels[channel] ?? METER_FLOOR, (even && state.levels[even]) || METER_FLOOR),
  );
  const height = Math.max(0, Math.min(1, 1 - dbfs / METER_FLOOR));
  return (
    <span
      className={`drawn absolute left-0.5 bottom-0 w-[3px] rounded-full ${dbfs > -3 ? "bg-coral" : "bg-sea"}`}
      style={{ height: `${height * 100}%` }}
      aria-hidden
    />
  );
}
