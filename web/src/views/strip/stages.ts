/** The stages of a strip's path, as the core has them, with the sign that each is drawn by. */
import kinds from "../../data/generated/kinds.json";

export interface Stage {
  key: string;
  word: string;
  /** Leaves behind the strip, in the order in which they are set. */
  leaves: readonly string[];
  /** The leaf that turns it on; "": it is always there. */
  switch: string;
  /** What of a strip it is, to copy or to clear; "": neither. */
  aspect: string;
  /** What of it a pin holds against recalls. */
  pin: string;
}

export const BANDS: readonly string[] = kinds.bands.map(String);
export const STAGES = new Map<string, Stage>(kinds.stages.map((stage) => [stage.key, stage]));

export const GLYPHS: Readonly<Record<string, string>> = {
  line: "~",
  preamp: "▷",
  trim: "±",
  low_cut: "/",
  insert_1: "⇅",
  gate: "□",
  eq: "≈",
  compressor: "⌐",
  insert_2: "⇅",
  delay: "→",
  crossover: "✕",
  mute: "○",
  fader: "▮",
  sharing: "÷",
};
