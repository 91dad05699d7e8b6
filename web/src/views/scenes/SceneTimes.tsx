import { useSetByHand } from "../../data/hand";
import { sceneText } from "../../data/scenes";
import { useShow, useValue } from "../../data/use";
import { TypedField } from "../../ui/TypedField";
import { ValueField } from "../strip/ValueField";

const KINDS = [
  ["faders", "Faders and mutes"],
  ["sends", "Sends and assignments"],
  ["pans", "Pans"],
  ["processing", "Processing and effects"],
] as const;

/** How long the recall takes; where a kind of value has a time of its own, that. */
export function SceneTimes({ scene }: { scene: string }) {
  const words = useShow((state) => sceneText(state, scene));
  return (
    <div className="flex flex-col gap-1 max-w-96 rounded-xl border border-line bg-floor p-3">
      <ValueField address={`${scene}/seconds`} of={words} />
      {KINDS.map(([kind, word]) => (
        <OwnTime key={kind} address={`${scene}/seconds_${kind}`} word={word} of={words} />
      ))}
      <p className="text-faint text-[13px] pt-1">
        Gain, pad, delay, names and memberships jump. Switches open at the start and close at the
        end. A hand that takes a fader on its way goes on from where it sounds.
      </p>
    </div>
  );
}

/** Empty: as the scene. */
function OwnTime({ address, word, of }: { address: string; word: string; of: string }) {
  const set = useSetByHand();
  const seconds = Number(useValue(address));
  return (
    <span className="flex items-center justify-between gap-2 min-h-9 coarse:min-h-11">
      <span className="text-soft">{word}</span>
      <TypedField
        boxed
        align="right"
        label={`${word} take, ${of}`}
        value={seconds < 0 ? "" : `${seconds} s`}
        placeholder="as the scene"
        className="w-28 h-8 coarse:h-11"
        onCommit={(text) => set(address, text.trim() || "-1")}
      />
    </span>
  );
}
