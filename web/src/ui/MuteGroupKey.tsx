import { useCloses } from "../data/closing";
import { stripName, useLink, useOn, useShow } from "../data/use";
import { useTabIndex } from "./reach";

/** The key of a mute group or a seal: what it closes, whether it is on, whether it is locked. */
export function MuteGroupKey({ group }: { group: string }) {
  const link = useLink();
  const name = useShow((state) => stripName(state, group));
  const on = useOn(`${group}/on`);
  const locked = useOn(`${group}/safe`);
  const seal = useOn(`${group}/hard`);
  const cells = useCloses(group);
  const verb = seal ? (on ? "sealed" : "seals") : on ? "closed" : "closes";
  const look = on
    ? "border-coral bg-blocked text-coral"
    : locked
      ? "border-edge text-faint"
      : "border-line bg-card text-soft hover:text-paper";
  return (
    <button
      type="button"
      data-row={group}
      tabIndex={useTabIndex()}
      aria-pressed={on}
      disabled={locked}
      title={locked ? `${name} is locked: unlock it in Mutes` : `${seal ? "Seal" : "Mute"} ${name}`}
      onClick={() => void link.put(`${group}/on`, !on)}
      className={`min-h-11 px-3 py-1 rounded-xl text-left min-w-28 max-w-full shrink-0 cursor-pointer disabled:cursor-default leading-tight ${seal ? "border-[3px] border-double" : "border"} ${look}`}
    >
      <span className="block truncate font-semibold" dir="auto">
        {name}
      </span>{" "}
      <span className={`block text-[12px] ${on ? "" : "text-faint"}`}>
        {locked && "locked, "}
        {verb}
        {cells !== null && ` ${cells}`}
      </span>
    </button>
  );
}
