import { useMemo } from "react";
import { byHand, useSetByHand } from "../data/hand";
import { Gesture } from "../data/link";
import { useLevel, useLink, useOn, useShow } from "../data/use";
import { levelText } from "../data/words";
import { Fader } from "./Fader";
import { SoloKey } from "./SoloKey";
import { Toggle } from "./Toggle";
import { TrueLevel } from "./TrueLevel";
import { TypedField } from "./TypedField";
import type { Mark } from "./travel";

interface Props {
  strip: string;
  name: string;
  colour: string;
  /** What its fader is called here, and its typed level. */
  fader: string;
  level: string;
}

/** The hand on one strip or DCA: its mute, its fader, its level as typed, and what it comes to. */
export function StripHand({ strip, name, colour, fader, level: label }: Props) {
  const link = useLink();
  const level = useLevel(`${strip}/fader`);
  const muted = useOn(`${strip}/mute`);
  const marks = useShow((state) => state.desk!.fader_marks as Mark[]);
  const gesture = useMemo(() => ({ now: null as Gesture | null }), []);
  const byTyping = useSetByHand();
  const set = (leaf: string, typed: string) => byTyping(`${strip}/${leaf}`, typed);
  return (
    <>
      <Toggle
        label={`Mute ${name}`}
        tone="coral"
        pressed={muted}
        onChange={(on) => set("mute", on ? "on" : "off")}
      >
        mute
      </Toggle>
      <SoloKey strip={strip} name={name} />
      <Fader
        label={fader}
        address={`${strip}/fader`}
        levelDb={level}
        muted={muted}
        marks={marks}
        colour={colour}
        onMove={(travel) => {
          gesture.now ??= new Gesture(link);
          gesture.now.move(byHand([{ address: `${strip}/fader`, travel }], { held: true }));
        }}
        onRelease={() => {
          gesture.now?.end();
          gesture.now = null;
        }}
        onStep={(text) => set("fader", text)}
      />
      <TypedField
        label={label}
        value={levelText(level)}
        align="right"
        className="w-16"
        onCommit={(text) => set("fader", text)}
      />
      <TrueLevel strip={strip} />
    </>
  );
}
