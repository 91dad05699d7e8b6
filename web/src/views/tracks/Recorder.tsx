import type { Tracks } from "../../data/types";
import { useLink, useText } from "../../data/use";
import { Choice } from "../../ui/Choice";

/** The box whose outputs are the tracks, and how many of them carry something. */
export function Recorder({ told }: { told: Tracks }) {
  const link = useLink();
  const chosen = useText("plan/recorder");
  const boxes = told.boxes.map((box) => [box.first, box.name] as const);
  const usual = ["", told.recorder && !chosen ? told.recorder : "as the desk has it"] as const;
  const used = told.tracks.filter((track) => track.carries).length;
  return (
    <span className="flex items-center gap-2 text-soft text-[13.5px]">
      <Choice
        boxed
        label="Recorder"
        value={chosen}
        options={[usual, ...boxes]}
        onChange={(box) => void link.put("plan/recorder", box || null)}
        className="coarse:h-11"
      />
      <span className="phone:hidden">
        {used} of {told.tracks.length} tracks carry something
      </span>
    </span>
  );
}
