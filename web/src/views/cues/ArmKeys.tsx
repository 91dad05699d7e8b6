import type { CuesHere } from "../../data/types";
import { useLink } from "../../data/use";
import { whenText } from "../../data/words";
import { RadioKeys } from "../../ui/RadioKeys";

const MODES = [
  ["rehearse", "Rehearse"],
  ["armed", "Armed"],
] as const;
export const MODE_SAYS: Record<CuesHere["mode"], string> = {
  rehearse: "Nothing is done: each says what it would do.",
  armed: "What comes is done.",
};

/** Whether cues do something, and who said so. */
export function ArmKeys({ here }: { here: CuesHere }) {
  const link = useLink();
  return (
    <span className="flex items-center gap-3 flex-wrap">
      <span className={here.mode === "armed" ? "text-sun-text" : "text-soft"} role="status">
        {MODE_SAYS[here.mode]}
        {here.by && (
          <span className="text-faint" dir="auto">
            {" "}
            {here.by}, {whenText(here.since)}
          </span>
        )}
      </span>
      <RadioKeys
        label="Whether cues do something"
        keys={MODES}
        chosen={here.mode}
        onChoose={(mode) => link.armCues(mode)}
      />
    </span>
  );
}
