/** What a strip truly comes to, in words: the levels are the core's. */
import { isOf, thingOf } from "./address";
import { type ShowState, valueIn } from "./show";
import { stripName, useShow } from "./use";
import { cellText, levelText } from "./words";

/** A strip's true level: its fader with all its DCAs. Null: off. */
export const trueLevel = (state: ShowState, strip: string): number | null => {
  const by = state.ruled.get(strip);
  if (by) return by.level_db;
  const fader = valueIn(state, `${strip}/fader`);
  return typeof fader === "number" ? fader : null;
};

/** "−8.0 = −5.0, Band −3.0"; "" where no DCA moves it. */
export function madeOf(state: ShowState, strip: string): string {
  const by = state.ruled.get(strip);
  if (!by || by.parts.length === 0) return "";
  const fader = valueIn(state, `${strip}/fader`) as number | null;
  const parts = by.parts.map(([dca, level]) => `${stripName(state, dca)} ${levelText(level)}`);
  return `${cellText(by.level_db)} = ${[levelText(fader), ...parts].join(", ")}`;
}

/** Who mutes a strip besides its own key: "Brass is muted", "All inputs is on". */
export function mutedBy(state: ShowState, strip: string): string {
  const own = `${strip}/mute`;
  const others = (state.ruled.get(strip)?.muted ?? []).filter((address) => address !== own);
  return others
    .map((address) => {
      if (address === "show/solo") return "solo in place";
      const name = stripName(state, thingOf(address).thing);
      return `${name} is ${isOf(address, "dca") ? "muted" : "on"}`;
    })
    .join(", ");
}

export const useTrueLevel = (strip: string): number | null =>
  useShow((state) => trueLevel(state, strip));
export const useMadeOf = (strip: string): string => useShow((state) => madeOf(state, strip));
export const useMutedBy = (strip: string): string => useShow((state) => mutedBy(state, strip));
