import { habits } from "../data/settings";

/** The keys of each view: one table that tells them in words and binds those that are a view's own. */

/** A key in words and what it does; `act` and `keys`: what the view does at which keys of a board. */
export interface KeyWord {
  word: string;
  does: string;
  act?: string;
  keys?: readonly string[];
}

const told = (word: string, does: string): KeyWord => ({ word, does });
const bound = (act: string, keys: readonly string[], word: string, does: string): KeyWord => ({
  word,
  does,
  act,
  keys,
});
const DIGITS = ["1", "2", "3", "4", "5", "6", "7", "8", "9"] as const;

const ROWS: readonly KeyWord[] = [
  told("Up, Down", "the same field of the next row"),
  told("Tab", "the next field of the row, then out of the list"),
  told("Enter", "take it, and on to the next row"),
  told("Escape", "give up what was typed"),
];

const TABLE: readonly KeyWord[] = [
  told("Arrows", "another cell"),
  told("Shift and arrows", "several cells"),
  told("Shift+Space", "the whole row"),
  told("Space", "into the group, or out of it: all that is taken"),
  told("Ctrl+Enter", "take what is shown first"),
];

export const KEYS: Record<string, readonly KeyWord[]> = {
  hears: [
    told("Arrows", "another cell"),
    told("Shift and arrows", "several cells"),
    told("Shift+Space", "the whole row: every mix of this source"),
    told("Ctrl+Space", "the whole column: every source of this listener"),
    told("−6, up 2, down 2, off", "type what is to arrive; Enter takes it"),
    told("Delete", "off"),
    told("Home, End", "the first or last listener"),
    told("Page Up, Page Down", "ten sources on"),
  ],
  lines: [...ROWS, told("Alt and Up or Down", "move the chosen lines")],
  outputs: ROWS,
  tracks: [...ROWS, told("Alt and Up or Down", "move a wish: the upper go to the lower tracks")],
  cues: ROWS,
  patch: [
    ...ROWS,
    told("Shift and arrows", "take several sockets"),
    told("Ctrl+Enter", "take what is shown first"),
  ],
  strip: [
    told("Left, Right", "stage to stage, on the path"),
    told("Up, Down", "the strip before, or after, on the path"),
    told("Arrows", "a point of the curve: frequency and gain; with Shift finely"),
    told("+, −", "a point of the curve: narrower, wider"),
    told("2k5, +3, 1 oct, 2 m", "values as people say them"),
  ],
  routing: [
    told("Arrows", "another cell"),
    told("Shift and arrows", "several cells"),
    told("Shift+Space", "the whole row"),
    told("Space", "feed it, or not: all that is taken"),
    bound("place", ["l", "c", "r"], "L, C, R", "the strips taken: left, centre, right"),
    told("Ctrl+Enter", "take what is shown first"),
  ],
  mixes: [
    ...ROWS,
    told("Left, Right", "a fader by 1 dB; with Shift by 0.1"),
    told("Page Up, Page Down", "a fader by 3 dB"),
    told("Home, End", "a fader off, or at 0"),
  ],
  banks: [
    bound("call", DIGITS, "1 to 9", "call a bank on the bay in sight"),
    told("Up, Down", "a fader by 1 dB; with Shift by 0.1"),
    told("Page Up, Page Down", "a fader by 3 dB"),
    told("Home, End", "a fader off, or at 0"),
    bound("mute", ["m"], "M", "mute, or open"),
    bound("solo", ["s"], "S", "solo, or let go"),
    bound("take", ["t"], "T", "take the strip with others, or let it go"),
    bound("fold", ["Escape"], "Escape", "back from what is unfolded"),
  ],
  lifts: [
    bound("lift", DIGITS, "1 to 9", "lift this singer, or take them back"),
    told("+4, 3.5", "a step as it is to be heard, in its field"),
  ],
  sharing: [...ROWS, told("all at -20, 6 at -26", "levels to try, before anybody comes")],
  scenes: [
    ...ROWS,
    told("Arrows", "another cell of what it carries"),
    told("Space", "carried, or not: all that is taken"),
  ],
  run: [
    bound("go", [" ", "g"], "Space or G", "go: the scene that is next"),
    bound("before", ["ArrowUp"], "Up", "make the scene before it the next one"),
    bound("after", ["ArrowDown"], "Down", "make the scene after it the next one"),
    told("12.5, Enter", "that number is next"),
  ],
  gangs: TABLE,
  assignments: TABLE,
  dcas: TABLE,
  mutes: TABLE,
  check: [
    bound("good", ["g"], "G", "good, and on to the next line"),
    bound("bad", ["b"], "B", "bad"),
    bound("tone", ["t"], "T", "tone on, or off"),
    bound("note", ["n"], "N", "a note"),
    bound("before", ["ArrowUp"], "Up", "the line before"),
    bound("after", ["ArrowDown"], "Down", "the line after"),
  ],
  miccheck: [
    bound("next", ["n"], "N", "next: keep what was moved, and on to who waits"),
    bound("skip", ["s"], "S", "skip: for later, nothing kept"),
    bound("back", ["b"], "B", "back to the one before"),
    bound("drop", ["d"], "D", "drop what was moved"),
    bound("tone", ["t"], "T", "tone from the stand-in stage, on or off"),
  ],
  quiet: [
    bound("ears", ["e"], "E", "all ears: mute, or open"),
    bound("inputs", ["i"], "I", "all inputs: mute, or open"),
  ],
  everywhere: [
    told("A, held", "move one alone: no gang follows"),
    bound("find", ["/", "Ctrl+k"], "/ or Ctrl+K", "find anything by name"),
    bound("undo", ["Ctrl+z"], "Ctrl+Z", "undo what you did last"),
    bound("redo", ["Ctrl+Shift+z", "Ctrl+y"], "Ctrl+Shift+Z or Ctrl+Y", "do it again"),
    bound("quiet", ["q"], "Q, then E or I", "mute all ears or all inputs, or open them"),
    bound("why", ["w"], "W", "fold Why to its edge, or unfold it"),
    bound("keys", ["?"], "?", "these keys"),
  ],
};

interface Pressed {
  key: string;
  ctrlKey: boolean;
  metaKey: boolean;
  altKey: boolean;
  shiftKey: boolean;
}

/** A key as the table writes it: "Ctrl+Shift+z", "g"; Shift is told with Ctrl alone, a sign says it itself. */
function written(event: Pressed): string {
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  const command = event.ctrlKey || event.metaKey;
  return `${event.altKey ? "Alt+" : ""}${command ? `Ctrl+${event.shiftKey ? "Shift+" : ""}` : ""}${key}`;
}

/** What a view does at a key, by the table; null: it is none of its keys. */
export function actOf(view: string, event: Pressed): string | null {
  const pressed = written(event);
  // a person may want no single characters (WCAG 2.1.4): what is dictated or typed astray presses them
  if (/^\S$/u.test(pressed) && !habits.getState().letters) return null;
  return KEYS[view]?.find((one) => one.keys?.includes(pressed))?.act ?? null;
}
