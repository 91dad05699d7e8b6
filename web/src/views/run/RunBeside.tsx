import { useEffect } from "react";
import { Link as RouteLink } from "wouter";
import type { Lift, Scene } from "../../data/types";
import { useLink, useShow } from "../../data/use";
import { MuteGroupKeys } from "../../ui/MuteGroupKeys";
import { LiftKeys } from "./LiftKeys";
import { RunHands } from "./RunHands";
import { SilentSources } from "./SilentSources";

interface Props {
  told: Scene | null;
  /** There is no scene to stand beside: this is all of the view, with faders under the hand. */
  alone?: boolean;
}

const NO_LIFTS: readonly Lift[] = [];

/** What is under the hand while the show runs: DCAs, mutes, lifts, who is silent and why. */
export function RunBeside({ told, alone = false }: Props) {
  const link = useLink();
  const dcas = useShow((state) => state.dcas);
  const groups = useShow((state) => state.mute_groups);
  const lifts = useShow((state) => state.lifts ?? NO_LIFTS);
  useEffect(() => {
    link.watch({ lifts: true });
    return () => link.watch({ lifts: false });
  }, [link]);
  return (
    <aside
      aria-label="Beside the run"
      className={
        alone
          ? "flex-1 min-h-0 scrolls grid grid-cols-[minmax(0,1.3fr)_minmax(0,1fr)] slim:grid-cols-1 gap-x-6 gap-y-4 content-start pr-1"
          : "w-80 slim:w-full shrink-0 scrolls slim:overflow-visible min-h-0 flex flex-col gap-3"
      }
      tabIndex={0}
    >
      <div className="flex flex-col gap-4 min-w-0">
        {(dcas.length > 0 || alone) && (
          <section aria-label="DCAs">
            <h2 className="text-soft pb-1">DCAs</h2>
            <RunHands faders={alone} />
            {dcas.length === 0 && <None to="/dcas" says="No DCA yet: make them in DCAs" />}
          </section>
        )}
        {(groups.length > 0 || alone) && (
          <section aria-label="Mutes">
            <h2 className="text-soft pb-1">Mutes</h2>
            <MuteGroupKeys
              className={`grid gap-1.5 ${alone ? "grid-cols-[repeat(auto-fill,minmax(9rem,1fr))]" : "grid-cols-2"}`}
            />
            {groups.length === 0 && (
              <None to="/mutes" says="No mute group yet: make one of all inputs in Mutes" />
            )}
          </section>
        )}
      </div>
      <div className="flex flex-col gap-4 min-w-0">
        {(lifts.length > 0 || alone) && (
          <section aria-label="Lifts">
            <h2 className="text-soft pb-1">Lifts</h2>
            <ul className="flex flex-col gap-1.5">
              {lifts.map((lift) => (
                <LiftKeys key={lift.lift} lift={lift} />
              ))}
            </ul>
            {lifts.length === 0 && (
              <None to="/lifts" says="Nobody to lift yet: make one in Lifts" />
            )}
          </section>
        )}
        <SilentSources />
        {told && told.pinned.length > 0 && (
          <p className="text-iris text-[13.5px]">
            Pins hold {told.pinned.length} {told.pinned.length === 1 ? "value" : "values"} of the
            next scene.
          </p>
        )}
      </div>
    </aside>
  );
}

function None({ to, says }: { to: string; says: string }) {
  return (
    <RouteLink to={to} className="text-sun-text underline coarse:min-h-11 inline-flex items-center">
      {says}
    </RouteLink>
  );
}
