import { Link as RouteLink } from "wouter";
import { valueIn } from "../data/show";
import { stripName, useShow } from "../data/use";

/** Hard mute groups that are on, in sight from every view: nothing of their members gets out. */
export function HardMutePill() {
  const names = useShow((state) =>
    state.mute_groups
      .map((number) => `mute_group/${number}`)
      .filter((group) => valueIn(state, `${group}/on`) && valueIn(state, `${group}/hard`))
      .map((group) => stripName(state, group))
      .join(", "),
  );
  if (!names) return null;
  return (
    <RouteLink
      to="/mutes"
      role="status"
      title={`Hard muted: ${names}`}
      className="h-8 coarse:h-11 px-3 rounded-full border border-coral bg-blocked text-coral font-semibold flex items-center max-w-56 phone:px-2"
    >
      <span className="truncate">
        <span className="phone:sr-only">{names}</span> shut
      </span>
    </RouteLink>
  );
}
