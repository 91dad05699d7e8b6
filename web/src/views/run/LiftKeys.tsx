import type { Lift } from "../../data/types";
import { useLink, useOn, useStripName, useText } from "../../data/use";
import { InRow, useRows, useTabIndex } from "../../ui/reach";

/** A lift: a key for each of its singers. */
export function LiftKeys({ lift }: { lift: Lift }) {
  const name = useText(`${lift.lift}/name`);
  // as it stands: singers are told a moment later, also when an undo has taken the lift
  const lead = useText(`${lift.lift}/lead`);
  const rows = useRows(
    lift.singers.map((one) => one.strip),
    { across: true },
  );
  if (lead === "") return null;
  return (
    <li>
      <p dir="auto" className="text-[13px] text-faint truncate">
        {name}
      </p>
      <div className="grid grid-cols-[repeat(auto-fill,minmax(8.5rem,1fr))] gap-1.5" {...rows.hand}>
        {lift.singers.map((singer) => (
          <InRow key={singer.strip} of={singer.strip} rows={rows}>
            <SingerKey lift={lift.lift} lead={lead} strip={singer.strip} />
          </InRow>
        ))}
      </div>
    </li>
  );
}

function SingerKey({ lift, lead, strip }: { lift: string; lead: string; strip: string }) {
  const link = useLink();
  const name = useStripName(strip);
  const up = useOn(`${strip}/${lead}/on`);
  return (
    <button
      type="button"
      tabIndex={useTabIndex()}
      data-row={strip}
      data-subject={strip}
      aria-pressed={up}
      aria-label={`Lift ${name}`}
      onClick={() => void link.do({ action: "lift", lift, strips: [strip], on: !up })}
      className={`min-h-11 px-3 rounded-xl border text-left cursor-pointer flex items-center gap-2 ${up ? "border-sun bg-card text-sun-text font-semibold" : "border-line bg-card text-soft hover:text-paper"}`}
    >
      <span aria-hidden className={up ? "" : "invisible"}>
        ▲
      </span>
      <span dir="auto" className="truncate">
        {name}
      </span>
    </button>
  );
}
