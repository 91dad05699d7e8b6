/** Our own words, each in a sentence, with the part of the guide that tells more. */
export interface OwnWord {
  word: string;
  says: string;
  /** Title of a part of the guide. */
  guide: string;
}

const own = (word: string, guide: string, says: string): [string, OwnWord] => [
  word.toLowerCase(),
  { word, guide, says },
];

export const OWN_WORDS: ReadonlyMap<string, OwnWord> = new Map([
  own("Seal", "Mutes", "A mute group by which nothing gets out: sends before the fader and direct outs are closed too. Locked, it asks for a second press."),
  own("Locked", "Mutes", "A seal that no single press closes or opens."),
  own("Lift", "Lifts", "A key that takes a singer from the backing group into the lead group, and back, over a time."),
  own("Gang", "Gangs and pairs", "Strips whose settings move together and keep their distances, also past the end of a fader's travel."),
  own("Pair", "Gangs and pairs", "An odd strip and the even one above it as one stereo strip."),
  own("Resting", "Gangs and pairs", "A gang that carries nothing while it rests: each member moves alone."),
  own("True level", "DCAs", "What a strip comes to: its own fader with all DCAs that rule it."),
  own("Takes", "DCAs", "What joins by itself when it comes later: a family, all inputs, all ears."),
  own("Spare", "Patch", "A second source of a channel, kept ready; one key changes between the two."),
  own("Reserved", "Patch", "A channel that fills skip: its source stays as it is."),
  own("Stays open in solo", "Solo", "Solo in place does not silence it."),
  own("Promise", "What is wrong", "What must hold all evening: who never reaches whom, or only through a group. Every edit that would break it says so first."),
  own("Finding", "What is wrong", "Something wrong with the show, or likely to be, with the one action that mends it."),
  own("Pin", "Scenes", "What no recall may move: a strip, or one aspect of it."),
  own("Carried", "Scenes", "What a scene holds of a strip and brings back; all else stays as it is."),
  own("Skipped by go", "Scenes", "A scene that go passes on its way to the next one."),
  own("Fitting", "Cast", "A performer's settings for a part, with versions; they lie over a channel's own while the performer is on."),
  own("Part", "Cast", "Who is played: several performers may know it, and one has it tonight."),
  own("Tonight", "Cast", "The cast that is on, and what of it was changed at the last moment."),
  own("Bank", "Banks", "What lies under the faders of the surface at once."),
  own("Side", "Banks", "A part of the surface with faders of its own; each can show another bank."),
  own("Unfold", "Banks", "Put the members of a DCA, gang, group or mix under the faders."),
  own("Shared gain", "Shared gain", "Several microphones that together are as loud as one: who speaks has the gain, the rest fall by as much."),
  own("Weight", "Shared gain", "How many dB somebody counts before the others who share gain, equally loud."),
  own("Held open", "Shared gain", "A microphone of the group that stays at 0 dB, whoever speaks."),
  own("Armed", "Cues", "Cues from outside do what they are for. Else each is told with what it would do, and nothing moves."),
  own("Way in", "Cues", "A port by which cues come: OSC by UDP or TCP, MIDI by TCP; off until it is switched on."),
  own("Wish", "Tracks", "A source that is to be recorded: where it is taken, on how many sides, on which track, and how much it matters."),
  own("Spare mix", "Tracks", "A mix that records one source alone, at 0 dB, where the desk has no direct out for it."),
  own("Plan", "Tracks", "Which source stands on which track, proven to be the best that there is."),
  own("Self", "Ears and wedges", "The channels by which whoever hears a mix is heard: by names of parts and performers, or typed."),
  own("Aim", "Ears and wedges", "How far above the rest of a mix whoever hears it is to stand, in dB."),
  own("Start", "Ears and wedges", "How a mix was when that was said: start over leads back to it."),
  own("Ceiling", "Ears and wedges", "The level above which no phone raises a mix."),
  own("Recipe", "Ears and wedges", "What a performer wants to hear, in a line of text: self +6, bass +3, click = -5."),
  own("Line", "Lines", "Something that is plugged in on stage, whatever channel it arrives at."),
  own("Socket", "Patch", "A connector of the desk or of a stage box."),
  own("Direct", "Routing", "Without a group in between."),
  own("N minus one", "Mixes", "A mix of all but one source: whoever hears it is not sent themselves."),
  own("Point", "History", "A moment with a name, to compare with and to go back to."),
]); // biome-ignore format: a list

/** The words that a text begins to say, the whole ones first. */
export const ownWordsLike = (typed: string): OwnWord[] => {
  const wanted = typed.trim().toLowerCase();
  if (wanted.length < 3) return [];
  return [...OWN_WORDS.values()].filter((one) => one.word.toLowerCase().startsWith(wanted));
};
