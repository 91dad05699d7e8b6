import { useClosing } from "../../data/closing";
import { valueIn } from "../../data/show";
import { useShow } from "../../data/use";
import { MuteGroupKey } from "../../ui/MuteGroupKey";
import { InRow, useRows } from "../../ui/reach";

const MOST_KEYS = 8; // more stand in Mutes

/** The keys of the mute groups, below the faders. */
export function MuteKeys() {
  const groups = useShow((state) => state.mute_groups);
  const shown = groups.slice(0, MOST_KEYS).map((number) => `mute_group/${number}`);
  const locked = useShow((state) =>
    shown.filter((group) => valueIn(state, `${group}/safe`) === true).join(" "),
  );
  const rows = useRows(
    shown.filter((group) => !locked.split(" ").includes(group)),
    { across: true },
  );
  useClosing();
  if (groups.length === 0) return null;
  return (
    <div
      className="flex items-center gap-1.5 pt-2 shrink-0 flex-wrap phone:hidden"
      role="group"
      aria-label="Mutes"
      {...rows.hand}
    >
      <span className="text-faint pr-1.5">Mute</span>
      {shown.map((group) => (
        <InRow key={group} of={group} rows={rows}>
          <MuteGroupKey group={group} />
        </InRow>
      ))}
    </div>
  );
}
