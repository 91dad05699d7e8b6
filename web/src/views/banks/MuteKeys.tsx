import { useClosing } from "../../data/closing";
import { useShow } from "../../data/use";
import { MuteGroupKey } from "../../ui/MuteGroupKey";

const MOST_KEYS = 8; // more stand in Mutes

/** The keys of the mute groups, below the faders. */
export function MuteKeys() {
  const groups = useShow((state) => state.mute_groups);
  useClosing();
  if (groups.length === 0) return null;
  return (
    <div
      className="flex items-center gap-1.5 pt-2 shrink-0 flex-wrap phone:hidden"
      role="group"
      aria-label="Mutes"
    >
      <span className="text-faint pr-1.5">Mute</span>
      {groups.slice(0, MOST_KEYS).map((number) => (
        <MuteGroupKey key={number} group={`mute_group/${number}`} />
      ))}
    </div>
  );
}
