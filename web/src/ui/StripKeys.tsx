/** The mute and the typed level of a strip or DCA, as a hand sets them: gangs follow. */
import { useSetByHand } from "../data/hand";
import { useLevel, useOn } from "../data/use";
import { levelText } from "../data/words";
import { Toggle } from "./Toggle";
import { TypedField } from "./TypedField";

export function MuteKey({ strip, name }: { strip: string; name: string }) {
  const set = useSetByHand();
  return (
    <Toggle
      label={`Mute ${name}`}
      tone="coral"
      pressed={useOn(`${strip}/mute`)}
      onChange={(on) => set(`${strip}/mute`, on ? "on" : "off")}
    >
      mute
    </Toggle>
  );
}

interface LevelProps {
  strip: string;
  label: string;
  className: string;
}

export function LevelField({ strip, label, className }: LevelProps) {
  const set = useSetByHand();
  return (
    <TypedField
      label={label}
      value={levelText(useLevel(`${strip}/fader`))}
      align="right"
      className={className}
      onCommit={(text) => set(`${strip}/fader`, text)}
    />
  );
}
