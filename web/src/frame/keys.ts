/** What the keys do, view by view, in words. The keys themselves are where they are taken. */
export type KeyWord = readonly [key: string, does: string];

const ROWS: readonly KeyWord[] = [
  ["Up, Down", "the same field of the next row"],
  ["Tab", "the next field of the row, then out of the list"],
  ["Enter", "settle, and on to the next row"],
  ["Escape", "give up what was typed"],
];

const TABLE: readonly KeyWord[] = [
  ["Arrows", "another cell"],
  ["Shift and arrows", "several cells"],
  ["Space", "into the group, or out of it: all that is taken"],
  ["Ctrl+Enter", "take what is shown first"],
];

export const KEYS: Record<string, readonly KeyWord[]> = {
  hears: [
    ["Arrows", "another cell"],
    ["Shift and arrows", "several cells"],
    ["Shift+Space", "the whole row: every mix of this source"],
    ["Ctrl+Space", "the whole column: every source of this listener"],
    ["−6, up 2, down 2, off", "type what is to arrive; Enter takes it"],
    ["Delete", "off"],
    ["Home, End", "the first or last listener"],
    ["Page Up, Page Down", "ten sources on"],
  ],
  lines: [...ROWS, ["Alt and Up or Down", "move the chosen lines"]],
  outputs: ROWS,
  patch: [
    ...ROWS,
    ["Shift and arrows", "take several sockets"],
    ["Ctrl+Enter", "take what is shown first"],
  ],
  strip: [
    ["Left, Right", "stage to stage, on the path"],
    ["Up, Down", "the strip before, or after, on the path"],
    ["Arrows", "a point of the curve: frequency and gain; with Shift finely"],
    ["+, −", "a point of the curve: narrower, wider"],
    ["2k5, +3, 1 oct, 2 m", "values as people say them"],
  ],
  routing: [
    ["Arrows", "another cell"],
    ["Shift and arrows", "several cells"],
    ["Space", "feed it, or not: all that is taken"],
    ["L, C, R", "the strips taken: left, centre, right"],
    ["Ctrl+Enter", "take what is shown first"],
  ],
  mixes: [
    ...ROWS,
    ["Left, Right", "a fader by 1 dB; with Shift by 0.1"],
    ["Page Up, Page Down", "a fader by 3 dB"],
    ["Home, End", "a fader off, or at 0"],
  ],
  banks: [
    ["1 to 9", "call a bank on the bay in sight"],
    ["Up, Down", "a fader by 1 dB; with Shift by 0.1"],
    ["Page Up, Page Down", "a fader by 3 dB"],
    ["Home, End", "a fader off, or at 0"],
    ["M", "mute, or open"],
    ["S", "solo, or let go"],
    ["T", "take the strip with others, or let it go"],
    ["Escape", "back from what is unfolded"],
  ],
  lifts: [
    ["1 to 9", "lift this singer, or take them back"],
    ["+4, 3.5", "a step as it is to be heard, in its field"],
  ],
  scenes: [
    ...ROWS,
    ["Arrows", "another cell of what it carries"],
    ["Space", "carried, or not: all that is taken"],
  ],
  run: [
    ["Space or G", "go: the scene that is next"],
    ["Up, Down", "make the scene before or after the next one"],
    ["12.5, Enter", "that number is next"],
  ],
  gangs: TABLE,
  dcas: TABLE,
  mutes: TABLE,
  check: [
    ["G", "good, and on to the next line"],
    ["B", "bad"],
    ["T", "tone on, or off"],
    ["N", "a note"],
    ["Up, Down", "the line before, or after"],
  ],
  miccheck: [
    ["N", "next: keep what was moved, and on to who waits"],
    ["S", "skip: for later, nothing kept"],
    ["B", "back to the one before"],
    ["D", "drop what was moved"],
    ["T", "tone from the stand-in stage, on or off"],
  ],
  everywhere: [
    ["A, held", "move one alone: no gang follows"],
    ["/ or Ctrl+K", "find anything by name"],
    ["Ctrl+Z", "undo what you did last"],
    ["Ctrl+Shift+Z", "do it again"],
    ["?", "these keys"],
  ],
};
