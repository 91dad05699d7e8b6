import { Link as RouteLink } from "wouter";
import { valueIn } from "../data/show";
import { stripName, useShow } from "../data/use";
import { BarKey } from "./BarKey";

/** The seals that are closed, by name; "" for none. */
const useSealed = (): string =>
  useShow((state) =>
    state.mute_groups
      .map((number) => `mute_group/${number}`)
      .filter((group) => valueIn(state, `${group}/on`) && valueIn(state, `${group}/hard`))
      .map((group) => stripName(state, group))
      .join(", "),
  );

/** Seals that are closed, in sight from every view: nothing of their members gets out. */
export function SealPill() {
  const names = useSealed();
  if (!names) return null;
  return (
    <RouteLink
      to="/mutes"
      role="status"
      title={`Sealed: ${names}. Nothing of them gets out.`}
      className="h-9 coarse:h-11 px-3 rounded-xl border-2 border-double border-coral bg-blocked text-coral font-semibold flex items-center max-w-56"
    >
      <span dir="auto" className="truncate">
        {names} sealed
      </span>
    </RouteLink>
  );
}

/** What mutes from anywhere; on a phone, which has no room for more, it says what is sealed too. */
export function QuietKey({ says, onPress }: { says: boolean; onPress: () => void }) {
  const names = useSealed();
  const sealed = says && names !== "";
  return (
    <BarKey
      of="quiet"
      word="Quiet"
      title="Mute all ears, all inputs, or a mute group (Q)"
      keys="Q"
      onPress={onPress}
      className={`max-[359px]:hidden ${sealed ? "!border-coral !bg-blocked !text-coral" : ""}`}
    >
      {sealed && (
        <span className="sr-only" role="status">
          {names} sealed
        </span>
      )}
    </BarKey>
  );
}
