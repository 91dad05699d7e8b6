import { useMemo } from "react";
import { byHand, useSetByHand } from "../data/hand";
import { Gesture } from "../data/link";
import { useLevel, useLink, useOn, useShow } from "../data/use";
import { Fader } from "./Fader";
import { SoloKey } from "./SoloKey";
import { LevelField, MuteKey } from "./StripKeys";
import { TrueLevel } from "./TrueLevel";
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
  return (
    <>
      <MuteKey strip={strip} name={name} />
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
          gesture.now.move(byHand([{ address: `${strip}/fader`, travel }], { stays: true }));
        }}
        onRelease={() => {
          gesture.now?.end();
          gesture.now = null;
        }}
        onStep={(text) => byTyping(`${strip}/fader`, text)}
      />
      <LevelField strip={strip} label={label} className="w-16" />
      <TrueLevel strip={strip} />
    </>
  );
}
