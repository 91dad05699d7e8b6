import { Link as RouteLink } from "wouter";
import { isOf, thingOf } from "../../data/address";
import { useSetByHand } from "../../data/hand";
import { socketName, sourceInForce, stripName, useLevel, useOn, useShow } from "../../data/use";
import { levelText } from "../../data/words";
import { SoloKey } from "../../ui/SoloKey";
import { Toggle } from "../../ui/Toggle";
import { RuledBy, TrueLevel } from "../../ui/TrueLevel";
import { TypedField } from "../../ui/TypedField";
import { PreampFields } from "../patch/PreampFields";

/** What is set at the source that Why answers for: gain, fader and mute, in reach from every view. */
export function SourceFields({ source }: { source: string }) {
  const name = useShow((state) => stripName(state, source));
  const socket = useShow((state) => {
    const { from } = sourceInForce(state, source);
    const box = isOf(from, "input")
      ? state.desk!.boxes.find((one) => one.key === thingOf(from).box)
      : undefined;
    return box?.preamps ? from : null;
  });
  const socketWord = useShow((state) => socketName(state, socket));
  const fader = useLevel(`${source}/fader`);
  const muted = useOn(`${source}/mute`);
  const proof = useOn(`${source}/solo_proof`);
  const byHand = useSetByHand();
  const set = (leaf: string, typed: string) => byHand(`${source}/${leaf}`, typed);
  return (
    <div
      data-source-fields
      className="flex items-center gap-x-2 gap-y-1 flex-wrap mt-2 pt-2 border-t border-line text-[13px]"
      role="group"
      aria-label={`Settings of ${name}`}
    >
      {socket && <PreampFields socket={socket} name={socketWord} words="short" />}
      <span className="flex items-center gap-1.5 flex-wrap basis-full">
        <span className="text-faint">Fader</span>
        <TypedField
          boxed
          label={`Fader of ${name}`}
          value={levelText(fader)}
          align="right"
          className="w-14"
          onCommit={(typed) => set("fader", typed)}
        />
        <Toggle
          label={`${muted ? "Muted" : "Mute"}: ${name}`}
          tone="coral"
          pressed={muted}
          onChange={(on) => set("mute", on ? "on" : "off")}
        >
          {muted ? "muted" : "mute"}
        </Toggle>
        <SoloKey strip={source} name={name} />
        <Toggle
          label={`stays open in solo, ${name}`}
          pressed={proof}
          onChange={(on) => set("solo_proof", on ? "on" : "off")}
        >
          stays open in solo
        </Toggle>
      </span>
      <RouteLink
        to={`/strip/${source}`}
        className="in-text text-sun-text underline min-h-6 coarse:min-h-11 inline-flex items-center"
      >
        Open strip
      </RouteLink>
      <TrueLevel strip={source} className="basis-full" />
      <RuledBy strip={source} />
    </div>
  );
}
