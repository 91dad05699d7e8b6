/** What each view is for, in a sentence or two for who sees it first; and its sheet on paper. */

interface About {
  says: string;
  /** The sheet that prints or exports it. */
  sheet?: string;
  /** Our own words that it shows. */
  words?: readonly string[];
}

export const ABOUT: Readonly<Record<string, About>> = {
  lines: {
    says: "Everything that a musician plugs in, a row each: what it is, who plays it, into which socket it goes, on which channel it arrives.",
    words: ["Line", "Socket"],
    sheet: "input-list",
  },
  patch: {
    says: "Which socket feeds which channel, with the gain, pad and 48 V of each. Type a range to fill many at once.",
    words: ["Socket", "Spare", "Reserved"],
    sheet: "patch-sheet",
  },
  outputs: {
    says: "What each output socket carries, and what is plugged into it: amplifiers, wedges, ears, recorders.",
    words: ["Socket", "Direct"],
    sheet: "output-list",
  },
  check: {
    says: "Line by line with the stage: what is heard, whether it is the right one, good or bad, and a note for who repairs it.",
  },
  routing: {
    says: "Where each strip goes behind its fader: to the house, to mono, to groups. Paint by dragging.",
    words: ["Direct", "Promise"],
  },
  assignments: {
    says: "All that every strip goes to and is in, at a glance: house, groups, mixes, matrices, DCAs, mutes, gangs. A send that stands at off is left alone by painting.",
    words: ["Gang"],
    sheet: "assignments",
  },
  ears: {
    says: "Every mix for ears and wedges, the worst first: how far whoever hears it stands above the rest, what they lack, what is loudest, how loud it is. Press a name to shape the mix as a whole.",
    words: ["Self", "Aim", "Start", "Ceiling", "Recipe"],
  },
  cues: {
    says: "What a show-control machine may fire: what comes, by OSC or MIDI, and what it does. Armed, it is done; else each is told with what it would do.",
    words: ["Armed", "Way in"],
    sheet: "outside",
  },
  crew: {
    says: "Who may do what in this show: engineers all, assistants line check, notes and paper, volunteers the faders, mutes and lifts that you give them, onlookers nothing. Nobody else sees it.",
  },
  tracks: {
    says: "What is to be recorded, and on which track: wishes in their order, the best plan for them, and the tracks' way back for a sound check without the band.",
    words: ["Wish", "Spare mix", "Plan"],
    sheet: "tracks",
  },
  mixes: {
    says: "The mixes that performers hear and the sends into them. Faders here are sends into one mix, not the house.",
    words: ["N minus one"],
  },
  effects: {
    says: "Effects that strips share: who is sent there and how loud, what the effect is, and who hears its return.",
  },
  sharing: {
    says: "Microphones of people who talk together share one gain: who speaks rises, the rest fall, and all are as loud as one. Weights say who wins.",
    words: ["Shared gain", "Weight", "Held open"],
  },
  strip: {
    says: "One strip from its line to its fader: each stage in its order, with its values and curve.",
    words: ["Fitting", "Pin"],
  },
  banks: {
    says: "Which strip lies under which fader of the surface, on pages called banks.",
    words: ["Bank", "Side", "Unfold"],
  },
  dcas: {
    says: "A DCA moves the levels of its members together and keeps their balance; nothing goes through it.",
    words: ["True level", "Takes"],
  },
  mutes: {
    says: "A mute group silences all its members by one key. A seal also stops sends that are taken before the fader: nothing gets out.",
    words: ["Seal", "Locked", "Takes"],
  },
  gangs: {
    says: "Strips of a gang move together when one of them is moved by hand. A pair is an odd and an even strip that are one.",
    words: ["Gang", "Pair", "Resting"],
  },
  lifts: {
    says: "One press takes a singer out of the backing group into the lead group, louder for whoever hears it; another press brings them back.",
    words: ["Lift"],
  },
  cast: {
    says: "Parts of the play, who plays them tonight, and the settings that each performer has on the channel of the part.",
    words: ["Part", "Fitting", "Tonight"],
  },
  miccheck: {
    says: "Each microphone in turn with its performer: listen, set, keep it for them, next.",
    words: ["Fitting"],
  },
  scenes: {
    says: "The show in its order. A scene holds values of some strips; recalling it moves those and nothing else.",
    words: ["Carried", "Pin", "Skipped by go"],
    sheet: "cues",
  },
  run: {
    says: "For the evening: what is on, what comes next and what go will do to whom, before it is pressed.",
    words: ["Skipped by go"],
  },
  hears: {
    says: "Every source against every listener: the level that arrives, or why nothing does. Select a cell, and Why tells the way.",
    words: ["Direct", "Stays open in solo"],
  },
  wrong: {
    says: "What Ombrel noticed by itself, each with what mends it; and promises: who must never reach whom, watched at every change.",
    words: ["Finding", "Promise"],
  },
  history: {
    says: "Who changed what and when, and points that one can go back to.",
    words: ["Point"],
  },
  paper: { says: "Sheets for who plugs, patches and plays: printed, or as files." },
};
