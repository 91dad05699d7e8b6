/** Values as people read them. Rounding for a label only; nothing is computed here. */
import kinds from "./generated/kinds.json";
import { habits } from "./settings";
import type { CellState, Parameter, Value } from "./types";

/**
 * A size to some decimals: half of the last goes up, by the number as it is written and not by its
 * binary neighbour, so that it reads alike here and on paper.
 */
export function sizeText(size: number, digits: number): string {
  const written = String(size);
  if (written.includes("e")) return size.toFixed(digits);
  return (Math.round(Number(`${written}e${digits}`)) / 10 ** digits).toFixed(digits);
}

/** "−6.0", "+2.0" with a true minus sign; null is "off". */
export function levelText(levelDb: number | null, digits = 1): string {
  if (levelDb === null) return "off";
  const size = sizeText(Math.abs(levelDb), digits);
  if (Number(size) === 0) return size;
  return levelDb < 0 ? `−${size}` : `+${size}`;
}

/** A level in a table: no plus sign, since nearly all are below zero. */
export function cellText(levelDb: number | null): string {
  return levelText(levelDb).replace("+", "");
}

/** A label as it stands within a sentence: "needs 48 V", "EQ gain". */
export function inSentence(label: string): string {
  return /^.\p{Lu}/u.test(label) ? label : label.charAt(0).toLowerCase() + label.slice(1);
}

const two = (number: number): string => String(number).padStart(2, "0");

/** When something was, as this person reads clocks: the time today, the date with it before. */
export function whenText(at: string, seconds = false): string {
  const when = new Date(at);
  const today = new Date().toDateString() === when.toDateString();
  const { clock, date } = habits.getState();
  const minutes = two(when.getMinutes()) + (seconds ? `:${two(when.getSeconds())}` : "");
  const hours = when.getHours();
  const time =
    clock === "24"
      ? `${two(hours)}:${minutes}`
      : `${hours % 12 || 12}:${minutes} ${hours < 12 ? "am" : "pm"}`;
  if (today) return time;
  const [year, month, day] = [when.getFullYear(), two(when.getMonth() + 1), two(when.getDate())];
  const written =
    date === "iso"
      ? `${year}-${month}-${day}`
      : date === "day_first"
        ? `${day}.${month}.${year}`
        : `${month}/${day}/${year}`;
  return `${written} ${time}`;
}

/** Who moved something, and when; who did so long ago is not looked up. */
export const setterText = ({ by, at }: { by: string; at: string }): string =>
  at ? `${by || "somebody"}, ${whenText(at)}` : "somebody, more than 20 000 moves ago";

export function panText(pan: number): string {
  const place = Math.round(Math.abs(pan) * 100);
  return place === 0 ? "C" : `${pan < 0 ? "L" : "R"}${place}`;
}

/** A frequency as people say it, to the step on which frequencies stand. */
export function hertzText(hertz: number): string {
  const value = Number(sizeText(hertz, 1));
  return value >= 1000 ? `${Number((value / 1000).toFixed(4))} kHz` : `${value} Hz`;
}

/** A value of the catalogue as it can be typed again, with its unit. */
export function valueText(parameter: Parameter, value: Value): string {
  if (typeof value === "boolean") return value ? "on" : "off";
  if (typeof value !== "number")
    return value === null && parameter.kind === "number" ? "off" : String(value ?? "");
  const unit = parameter.unit;
  if (unit === "Hz") return hertzText(value);
  // what is always an amount has no sign
  if (unit === "dB") return (parameter.lowest ?? -1) >= 0 ? cellText(value) : levelText(value);
  if (unit === "pan") return panText(value);
  // to its step: what is read can be typed again, and is the same then
  const step = parameter.step ?? 0.001;
  const digits = step >= 1 ? 0 : Math.ceil(-Math.log10(step));
  const size = String(Number(sizeText(Math.abs(value), digits)));
  const plain = value < 0 && size !== "0" ? `−${size}` : size;
  return unit === ":1" ? `${plain}:1` : unit === "Q" || !unit ? plain : `${plain} ${unit}`;
}

const OPTION_WORD: Readonly<Record<string, string>> = kinds.words;

/** One of the catalogue's words, as people read it. */
export const optionText = (option: string): string =>
  OPTION_WORD[option] ?? option.replaceAll("_", " ");

export const STATE_WORD: Record<CellState, string> = {
  unrouted: "",
  heard: "",
  muted: "muted",
  no_source: "no source",
  no_output: "no out",
  down: "fader off",
  cancelled: "cancels",
};

/** The options of a choice with their words, in the core's order. */
const worded = (options: readonly string[]): Readonly<Record<string, string>> =>
  Object.fromEntries(options.map((option) => [option, optionText(option)]));

export const KIND_WORD = worded(kinds.choices.line_kinds);
export const DEVICE_WORD = { ...worded(kinds.choices.devices), none: "—" };
export const TAP_WORD = worded(kinds.choices.taps);

/** The same where there is little room; in this order each is plain. */
export const TAP_SHORT: Record<string, string> = {
  ...TAP_WORD,
  before_fader_after_mute: "after mute",
};

export const SOLO_WORD = worded(kinds.choices.solo);

/** As heads of what listens. */
export const SERVES_WORD = Object.fromEntries(
  kinds.choices.serves.map((one) => [one, `${one[0]!.toUpperCase()}${optionText(one).slice(1)}`]),
);
