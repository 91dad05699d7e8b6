import { useCloses, useClosing } from "../../data/closing";
import { stripName, useLink, useOn, useShow } from "../../data/use";

const MOST_KEYS = 8; // more stand in Mute groups

/** The keys of the mute groups, beside those of the banks. */
export function MuteKeys() {
  const groups = useShow((state) => state.mute_groups);
  useClosing();
  if (groups.length === 0) return null;
  return (
    <span
      className="flex items-center gap-1 ml-auto flex-wrap phone:hidden"
      role="group"
      aria-label="Mute groups"
    >
      <span className="text-faint text-[12px]">Mute · cells that it closes</span>
      {groups.slice(0, MOST_KEYS).map((number) => (
        <MuteKey key={number} group={`mute_group/${number}`} />
      ))}
    </span>
  );
}

function MuteKey({ group }: { group: string }) {
  const link = useLink();
  const name = useShow((state) => stripName(state, group));
  const on = useOn(`${group}/on`);
  const safe = useOn(`${group}/safe`);
  const closes = useCloses(group, on);
  return (
    <button
      type="button"
      aria-pressed={on}
      disabled={safe}
      title={safe ? `${name} is safe: arm it in Mute groups` : `Mute group ${name}`}
      onClick={() => void link.put(`${group}/on`, !on)}
      className={`h-8 coarse:h-11 px-2 rounded-lg border text-[12.5px] max-w-36 flex items-center cursor-pointer disabled:cursor-default ${on ? "border-coral bg-blocked text-coral font-semibold" : safe ? "border-dashed border-line text-faint" : "border-line bg-card text-soft"}`}
    >
      <span className="truncate">{name}</span>
      {closes && (
        <span className="pl-1 text-faint whitespace-nowrap" title={`${closes} cells`}>
          {closes.split(" ")[1]}
        </span>
      )}
    </button>
  );
}
