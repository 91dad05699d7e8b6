import { type KeyboardEvent, memo, type PointerEvent, useEffect, useRef, useState } from "react";
import { Gesture } from "../../data/link";
import { trueLevel, useMutedBy } from "../../data/ruled";
import { placesOf, type ShowState, store, valueIn } from "../../data/show";
import { select, stripName, useLevel, useLink, useOn, useShow } from "../../data/use";
import { cellText, levelText } from "../../data/words";
import { TypedField } from "../../ui/TypedField";
import { type Mark, travelOf } from "../../ui/travel";

interface Props {
  strip: string;
  /** The mix whose send lies here instead of the strip's own fader. */
  listen: string | null;
  fixed: boolean;
  onUnfold: ((strip: string) => void) | null;
}

const STEPS: Record<string, string> = {
  ArrowUp: "+1",
  ArrowDown: "+-1",
  PageUp: "+3",
  PageDown: "+-3",
  Home: "off",
  End: "0",
};
const FINE_AWAY = 70; // px beside the fader, past which the hand moves it finely
const WHEEL_REST_MS = 1000; // turns within this are one gesture
const METER_FLOOR = -60;

const isSource = (strip: string) => /^(channel|return)\//.test(strip);

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
export const BankFader = memo(function BankFader({ strip, listen, fixed, onUnfold }: Props) {
  const link = useLink();
  const asSend = listen !== null && listen !== strip;
  const address = asSend ? `${strip}/send/${listen}/level` : `${strip}/fader`;
  const key = asSend ? `${strip}/send/${listen}/on` : `${strip}/mute`;
  const name = useShow((state) => stripName(state, strip));
  const colour = useShow((state) =>
    strip.includes("/") ? String(valueIn(state, `${strip}/colour`)) : "sand",
  );
  const own = useLevel(address);
  const pressed = useOn(key);
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
  const set = (at: string, typed: string) =>
    void link.do({ action: "moves", moves: [{ address: at, typed }] });
  const hand = useHand(address, marks, own);
  const travel = hand.asked ?? travelOf(own, marks);
  const fill = silent ? travel : Math.min(1, travelOf(level, marks));
  const [kind, number] = strip.split("/");
  const word =
    kind === "channel" ? number : kind === "dca" ? "DCA" : number ? `${kind} ${number}` : kind;

  const keyWord = asSend ? (shut ? "off" : "on") : shut ? "muted" : "mute";

  const onKey = (event: KeyboardEvent<HTMLDivElement>) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === "m" || event.key === "M") {
      set(key, pressed ? "off" : "on");
      return;
    }
    let step = STEPS[event.key];
    if (!step) return;
    if (event.shiftKey) step = step.replace("1", "0.1");
    event.preventDefault();
    set(address, step);
  };
  const look = () => {
    if (isSource(strip)) select(strip, listen ?? "house");
    else if (kind !== "dca") select(null, strip);
  };
  return (
    <div
      className={`flex flex-col gap-1 flex-1 min-w-0 min-h-0 rounded-xl p-1 ${fixed ? "bg-raise" : ""}`}
      data-bank-strip={strip}
      onFocus={look}
      onPointerDown={look}
    >
      <div
        ref={hand.ref}
        role="slider"
        tabIndex={0}
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
          <span className="block px-1 pt-0.5 text-[11.5px] leading-tight text-paper whitespace-pre-line break-words">
            {silent ? "" : parts}
          </span>
        </div>
        <Zero marks={marks} />
        {kind === "channel" && <Meter channel={number!} />}
        {silent && (
          <span className="absolute inset-x-0 bottom-1 px-0.5 text-center text-[11.5px] leading-tight text-coral font-semibold break-words">
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
      <span
        className="text-[12px] tracking-tight font-semibold leading-tight line-clamp-2 break-words h-[31px]"
        title={name}
      >
        {name}
      </span>
      <span className="flex items-baseline justify-between gap-1 text-[12px] min-w-0">
        <span className="text-faint truncate">{word}</span>
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
        className="w-full h-7 text-[13px]"
        onCommit={(text) => set(address, text)}
      />
      <button
        type="button"
        aria-pressed={shut}
        aria-label={`${keyWord}, ${asSend ? "send of " : ""}${name}`}
        onClick={() => set(key, pressed ? "off" : "on")}
        className={`h-9 coarse:h-11 rounded-lg border text-[12.5px] cursor-pointer ${shut ? "border-coral bg-blocked text-coral font-semibold" : "border-line bg-card text-soft"}`}
      >
        {keyWord}
      </button>
      {onUnfold ? (
        <button
          type="button"
          aria-label={`unfold ${name}`}
          onClick={() => onUnfold(strip)}
          className="h-8 coarse:h-11 rounded-lg border border-line bg-card text-[12px] text-soft cursor-pointer hover:text-paper"
        >
          unfold
        </button>
      ) : (
        <span className="h-8 coarse:h-11" aria-hidden />
      )}
    </div>
  );
});

function Zero({ marks }: { marks: readonly Mark[] }) {
  return (
    <span
      className="absolute right-0 w-3 border-t border-soft"
      style={{ bottom: `${travelOf(0, marks) * 100}%` }}
      aria-hidden
    />
  );
}

/** The input meter of a channel, as a line at the left. */
function Meter({ channel }: { channel: string }) {
  const dbfs = useShow((state) => state.levels[channel] ?? METER_FLOOR);
  const height = Math.max(0, Math.min(1, 1 - dbfs / METER_FLOOR));
  return (
    <span
      className={`absolute left-0.5 bottom-0 w-[3px] rounded-full ${dbfs > -3 ? "bg-coral" : "bg-sea"}`}
      style={{ height: `${height * 100}%` }}
      aria-hidden
    />
  );
}

/** A hand on a vertical fader: moves it from where it stands, finely far beside it; and the wheel. */
function useHand(address: string, marks: readonly Mark[], own: number | null) {
  const link = useLink();
  const ref = useRef<HTMLDivElement>(null);
  const [asked, setAsked] = useState<number | null>(null);
  const held = useRef<{ gesture: Gesture; y: number; travel: number } | null>(null);
  const wheel = useRef<{ gesture: Gesture; level: number; timer: number } | null>(null);

  const down = (event: PointerEvent<HTMLDivElement>) => {
    if (event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    held.current = { gesture: new Gesture(link), y: event.clientY, travel: travelOf(own, marks) };
  };
  const move = (event: PointerEvent<HTMLDivElement>) => {
    const now = held.current;
    if (!now) return;
    const box = event.currentTarget.getBoundingClientRect();
    const away = Math.max(box.left - event.clientX, event.clientX - box.right);
    const scale = away > FINE_AWAY ? 0.2 : 1;
    const travel = now.travel + ((now.y - event.clientY) / box.height) * scale;
    now.y = event.clientY;
    now.travel = Math.min(1, Math.max(0, travel));
    const wanted = now.travel < 0.015 ? 0 : now.travel;
    setAsked(wanted);
    now.gesture.move({ action: "moves", moves: [{ address, travel: wanted }] });
  };
  const up = (event: PointerEvent<HTMLDivElement>) => {
    if (!held.current) return;
    if (event.currentTarget.hasPointerCapture(event.pointerId))
      event.currentTarget.releasePointerCapture(event.pointerId);
    held.current = null;
    setAsked(null);
  };
  useEffect(() => {
    const element = ref.current;
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const now = wheel.current;
      if (now) clearTimeout(now.timer);
      const value = valueIn(store.getState(), address);
      const from = now?.level ?? (typeof value === "number" ? value : -60);
      const level = Math.min(6, Math.round((from - Math.sign(event.deltaY) * 0.5) * 10) / 10);
      const gesture = now?.gesture ?? new Gesture(link);
      const timer = window.setTimeout(() => (wheel.current = null), WHEEL_REST_MS);
      wheel.current = { gesture, level, timer };
      gesture.move({ action: "moves", moves: [{ address, value: level }] });
    };
    element?.addEventListener("wheel", onWheel, { passive: false });
    return () => element?.removeEventListener("wheel", onWheel);
  }, [address, link]);
  return { ref, asked, down, move, up };
}
