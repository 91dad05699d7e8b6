import { useLink, useOn } from "../../data/use";
import { Toggle } from "../../ui/Toggle";

const WHAT = [
  ["talkback", "talkback"],
  ["cues", "click and cues"],
  ["tracks", "a recorder's tracks"],
  ["playback", "playback"],
] as const;

/** Which new channels start in the house: by what their lines are. */
export function HouseStarts() {
  return (
    <span
      role="group"
      aria-label="What starts in the house"
      className="flex items-center gap-1.5 flex-wrap text-[13px]"
    >
      <span className="text-soft" title="Of a channel that gets its first source; all else does">
        Starts in the house:
      </span>
      {WHAT.map(([what, word]) => (
        <Start key={what} what={what} word={word} />
      ))}
    </span>
  );
}

function Start({ what, word }: { what: string; word: string }) {
  const link = useLink();
  const on = useOn(`show/house_${what}`);
  return (
    <Toggle
      label={`${word} ${on ? "starts in the house" : "does not start in the house"}`}
      pressed={on}
      onChange={(value) => void link.put(`show/house_${what}`, value)}
    >
      {word}
    </Toggle>
  );
}
