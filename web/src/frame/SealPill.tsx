import { Link as RouteLink } from "wouter";
import { valueIn } from "../data/show";
import { stripName, useShow } from "../data/use";

/** Seals that are closed, in sight from every view: nothing of their members gets out. */
export function SealPill() {
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
      title={`Sealed: ${names}. Nothing of them gets out.`}
      className="h-9 coarse:h-11 px-3 rounded-xl border-2 border-double border-coral bg-blocked text-coral font-semibold flex items-center max-w-56 phone:px-2"
    >
      <span dir="auto" className="truncate">
        <span className="phone:sr-only">{names}</span> sealed
      </span>
    </RouteLink>
  );
}
