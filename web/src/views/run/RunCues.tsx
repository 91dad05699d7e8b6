import { useState } from "react";
import { useShow } from "../../data/use";
import { whenText } from "../../data/words";
import { Button } from "../../ui/Button";
import { ArmKeys } from "../cues/ArmKeys";

/** While the show runs: whether cues from outside do something, the last that came, a note. */
export function RunCues() {
  const here = useShow((state) => state.cues);
  const known = useShow((state) => state.cue_ids.size > 0);
  const [seen, setSeen] = useState(0);
  if (here === null) return null;
  const listening = here.ways.some((way) => way.on);
  if (!known && !listening && here.mode === "rehearse") return null;
  const last = here.told.find((told) => told.what !== "dropped");
  const note = here.told.find((told) => told.note && told.what === "done");
  const armed = here.mode === "armed";
  return (
    <section
      aria-label="Cues from outside"
      className={`shrink-0 rounded-xl border px-3 py-2 flex flex-col gap-1.5 ${armed ? "border-sun" : "border-line"}`}
    >
      <div className="flex items-center gap-x-4 gap-y-1 flex-wrap">
        <strong
          className={`font-title text-[22px] leading-none ${armed ? "text-sun-text" : "text-soft"}`}
        >
          {armed ? "Cues armed" : "Cues rehearse"}
        </strong>
        <ArmKeys here={here} />
        {!listening && <span className="text-coral">No way in is on.</span>}
      </div>
      {last && (
        <p className="text-[14px] min-w-0 break-words" role="status" aria-label="Last cue">
          <span className="text-soft tabular-nums">{whenText(last.at, true)}</span>{" "}
          <span className="tabular-nums">{last.came}</span>{" "}
          <span
            className={
              last.what === "refused" || last.what === "unknown" ? "text-coral" : "text-paper"
            }
          >
            {last.what === "rehearsed" ? "would: " : ""}
            {last.says}
          </span>
        </p>
      )}
      {note && note.id > seen && (
        <p
          role="alert"
          className="flex items-center gap-3 rounded-lg border-2 border-sun px-3 py-2 text-[22px] font-title"
        >
          <span className="flex-1 min-w-0 break-words" dir="auto">
            {note.says}
          </span>
          <Button className="coarse:h-11 font-sans text-[15px]" onClick={() => setSeen(note.id)}>
            Seen
          </Button>
        </p>
      )}
    </section>
  );
}
