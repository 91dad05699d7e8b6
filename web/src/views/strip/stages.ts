/** The stages of a strip's path: which values each shows, and the aspect that is copied or cleared. */

export interface Stage {
  word: string;
  glyph: string;
  /** Leaves behind the strip, in the order in which they are set. */
  leaves: readonly string[];
  /** What its switch is; none: it is always there. */
  on?: string;
  aspect?: string;
  /** What of it a pin holds against recalls. */
  pin?: string;
}

export const BANDS = ["1", "2", "3", "4"] as const;

const insert = (place: number): Stage => ({
  word: `Insert ${place}`,
  glyph: "⇅",
  leaves: [`insert_${place}/device`],
  on: `insert_${place}/on`,
  pin: "inserts",
});

export const STAGES: Record<string, Stage> = {
  line: { word: "Line", glyph: "~", leaves: [] },
  preamp: { word: "Preamp", glyph: "▷", leaves: [] },
  trim: { word: "Trim", glyph: "±", leaves: ["trim", "polarity"], pin: "trim" },
  low_cut: {
    word: "Low cut",
    glyph: "/",
    leaves: [],
    on: "low_cut/on",
    aspect: "low_cut",
    pin: "low_cut",
  },
  insert_1: insert(1),
  gate: {
    word: "Gate",
    glyph: "□",
    leaves: [
      "threshold",
      "range",
      "ratio",
      "attack",
      "hold",
      "release",
      "key",
      "key_tap",
      "key_low_cut",
      "key_high_cut",
    ].map((leaf) => `gate/${leaf}`),
    on: "gate/on",
    aspect: "gate",
    pin: "gate",
  },
  eq: { word: "EQ", glyph: "≈", leaves: [], on: "eq/on", aspect: "eq", pin: "eq" },
  compressor: {
    word: "Compressor",
    glyph: "⌐",
    leaves: [
      "threshold",
      "ratio",
      "knee",
      "attack",
      "release",
      "make_up",
      "blend",
      "key",
      "key_tap",
    ].map((leaf) => `compressor/${leaf}`),
    on: "compressor/on",
    aspect: "compressor",
    pin: "compressor",
  },
  insert_2: insert(2),
  delay: {
    word: "Delay",
    glyph: "→",
    leaves: ["delay/ms"],
    on: "delay/on",
    aspect: "delay",
    pin: "delay",
  },
  // house and mono have it in common
  crossover: { word: "Crossover", glyph: "✕", leaves: ["frequency", "kind"] },
  mute: { word: "Mute", glyph: "○", leaves: [], pin: "mute" },
  fader: { word: "Fader", glyph: "▮", leaves: ["pan"], pin: "fader" },
};
