import { useMemo } from "react";
import { store } from "../../data/show";
import type { Ask, PlanFound, Tracks, WouldDo } from "../../data/types";
import { useLink, useShow } from "../../data/use";
import { Button } from "../../ui/Button";
import { Consequence } from "../../ui/Consequence";
import { SwitchKey } from "../../ui/SwitchKey";
import { TypedField } from "../../ui/TypedField";
import { Waiting } from "../../ui/Waiting";

/** What no plan moves, the search, and what it found. */
export function PlanPanel({ told }: { told: Tracks }) {
  const link = useLink();
  const plan = useShow((state) => state.plan);
  const planning = useShow((state) => state.planning);
  return (
    <section
      aria-label="Plan"
      style={{ gridArea: "plan" }}
      className="rounded-xl border border-line bg-floor p-3 flex flex-col gap-2"
    >
      <div className="flex items-center gap-x-3 gap-y-2 flex-wrap">
        <Stay told={told} />
        <span className="flex-1" />
        <Button
          tone="main"
          className="coarse:h-11"
          disabled={told.wishes.length === 0 || planning !== null}
          onClick={() => link.planTracks()}
        >
          Find the plan
        </Button>
      </div>
      {planning && <Progress what={planning.what} at={planning.at} of={planning.of} />}
      {plan && plan.basis !== told.basis && !plan.refused && (
        <p role="status" className="text-soft">
          What is wished, or stays, is otherwise now: find the plan again.
        </p>
      )}
      {plan &&
        (plan.refused || plan.basis === told.basis) &&
        (plan.found ? <Found plan={plan} told={told} /> : <None plan={plan} />)}
    </section>
  );
}

/** Tracks and mixes that stay as they are, and whether last evening's plan does. */
function Stay({ told }: { told: Tracks }) {
  const link = useLink();
  return (
    <>
      <label className="flex items-center gap-1.5 text-soft text-[13.5px]">
        Tracks that stay
        <TypedField
          boxed
          label="Tracks that stay as they are"
          value={told.held_tracks}
          placeholder="29-32"
          className="w-24 coarse:h-11"
          onCommit={(tracks) => void link.do({ action: "hold_back", tracks })}
        />
      </label>
      <label className="flex items-center gap-1.5 text-soft text-[13.5px]">
        Mixes held back
        <TypedField
          boxed
          label="Mixes that no plan takes"
          value={told.held_mixes}
          placeholder="21, 22"
          className="w-24 coarse:h-11"
          onCommit={(mixes) => void link.do({ action: "hold_back", mixes })}
        />
      </label>
      <span className="text-faint text-[13px]">{told.spare} spare</span>
      <SwitchKey address="plan/keep" of="the track plan" word="Keep last evening's" />
    </>
  );
}

const WORKING: Readonly<Record<string, string>> = {
  plan: "Looking for the best plan",
  clashes: "There is none: looking for what stands in the way",
  "would do": "Trying what would do",
};

function Progress({ what, at, of }: { what: string; at: number; of: number }) {
  return (
    <div role="status" className="flex items-center gap-2 text-soft">
      <Waiting />
      {WORKING[what] ?? "Waiting for its turn"}
      {of > 1 && (
        <progress className="w-32" value={at} max={of} aria-label="How far the search is" />
      )}
    </div>
  );
}

function Found({ plan, told }: { plan: PlanFound; told: Tracks }) {
  const link = useLink();
  const served = plan.rows.filter((row) => row.track > 0).length;
  const left = plan.rows.filter((row) => row.track === 0);
  const ask = useMemo<Ask>(
    () => ({
      action: "take_plan",
      given: plan.rows.map(({ wish, track, mix }) => ({ wish, track, mix })),
    }),
    [plan],
  );
  const stands =
    plan.changes === 0 &&
    plan.rows.every((row) => told.wishes.find((one) => one.wish === row.wish)?.given === row.track);
  const mixes = plan.mixes === 1 ? "1 spare mix" : `${plan.mixes} spare mixes`;
  const changes = plan.changes === 1 ? "1 change" : `${plan.changes} changes`;
  return (
    <div role="status" className="flex flex-col gap-1.5" data-testid="plan">
      <p>
        <strong className="text-sea">
          {served} of {plan.rows.length} on tracks
        </strong>
        , with {mixes} and {changes}: there is no better.
      </p>
      {left.length > 0 && (
        <p className="text-soft">
          No room:{" "}
          {left
            .map((row) => (row.why === "no room" ? row.name : `${row.name} (${row.why})`))
            .join(", ")}
        </p>
      )}
      {plan.told.map((says) => (
        <p key={says} className="text-soft">
          {says}
        </p>
      ))}
      {stands ? (
        <p className="text-sea">It stands so already.</p>
      ) : (
        <>
          <Consequence ask={ask} />
          <Button
            tone="main"
            className="self-start coarse:h-11"
            onClick={() =>
              void link.do(ask, { quiet: false }).then((kept) => {
                if (kept) store.setState({ plan: null });
              })
            }
          >
            Take the plan
          </Button>
        </>
      )}
    </div>
  );
}

function None({ plan }: { plan: PlanFound }) {
  const link = useLink();
  const take = async (one: WouldDo) => {
    const { moves, says } = one;
    if (await link.do({ action: "moves", moves, says: says.slice(0, 120) })) link.planTracks();
  };
  if (plan.refused)
    return (
      <p role="alert" className="text-coral">
        {plan.refused}
      </p>
    );
  const ways = [...plan.would_do, ...(plan.fewest ? [plan.fewest] : [])];
  return (
    <div role="status" className="flex flex-col gap-2" data-testid="no-plan">
      <p className="text-coral">
        <strong>Not all musts find a place.</strong> {plan.counts.join("; ")}
      </p>
      {plan.clashes.map((one) => (
        <p key={one.wishes.join()}>
          <strong>Not together: </strong>
          {one.names.length > 8
            ? `${one.names.slice(0, 7).join(", ")} and ${one.names.length - 7} more`
            : one.names.join(", ")}
          {one.why && <span className="text-soft"> ({one.why})</span>}
        </p>
      ))}
      {ways.length > 0 && <p className="text-soft">Any one of these would do:</p>}
      <ul className="flex flex-wrap gap-1.5 max-h-48 scrolls" aria-label="What would do">
        {ways.map((one) => (
          <li key={one.says}>
            {one.moves.length > 0 ? (
              <Button small className="max-w-full" onClick={() => void take(one)}>
                <span className="truncate">{one.says}</span>
              </Button>
            ) : (
              <span className="inline-block px-2 py-1 text-soft text-[13.5px]">{one.says}</span>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}
