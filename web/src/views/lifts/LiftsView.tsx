import { useEffect } from "react";
import { Link as RouteLink } from "wouter";
import { store, valueIn } from "../../data/show";
import { stripName, useLink, useShow } from "../../data/use";
import { useViewKeys } from "../../frame/useViewKeys";
import { ViewHead } from "../../frame/ViewHead";
import { Empty } from "../../ui/Panel";
import { Waiting } from "../../ui/Waiting";
import { LiftCard } from "./LiftCard";
import { NewLift } from "./NewLift";

/** Who leads: a key for each singer, with the step that it makes for every listener. */
export function LiftsView() {
  const link = useLink();
  const lifts = useShow((state) => state.lifts);
  const channels = useShow((state) => state.channels.length);
  useEffect(() => {
    link.watch({ lifts: true });
    return () => link.watch({ lifts: false });
  }, [link]);
  const take = (event: KeyboardEvent) => {
    if (event.target instanceof Element && event.target.closest("select, [role=dialog]")) return;
    const keys = (lifts ?? []).flatMap((lift) =>
      lift.singers.map(({ strip }) => ({ lift: lift.lift, strip })),
    );
    const one = keys[Number(event.key) - 1];
    if (!one) return;
    const state = store.getState();
    const lead = valueIn(state, `${one.lift}/lead`);
    if (typeof lead !== "string") return; // it has just been taken: its keys are still drawn
    const up = valueIn(state, `${one.strip}/${lead}/on`) === true;
    void link.do({ action: "lift", lift: one.lift, strips: [one.strip], on: !up });
  };
  useViewKeys("lifts", { lift: take });
  let first = 1;
  return (
    <>
      <ViewHead title="Lifts">{lifts && lifts.length > 0 && <Leading />}</ViewHead>
      <NewLift />
      {lifts === null ? (
        <Waiting />
      ) : lifts.length === 0 ? (
        <Empty title="Nobody to lift yet">
          <p>
            Name a lift and say who sings: they go through a backing group, and one press takes any
            of them up into a lead group beside it.
          </p>
          {channels === 0 && (
            <RouteLink to="/patch" className="text-sun-text underline">
              First give channels a source, in Patch
            </RouteLink>
          )}
        </Empty>
      ) : (
        <ul className="scrolls flex-1 min-h-0 flex flex-col gap-3 pr-1">
          {lifts.map((lift) => {
            const from = first;
            first += lift.singers.length;
            return <LiftCard key={lift.lift} lift={lift} firstKey={from} />;
          })}
        </ul>
      )}
    </>
  );
}

/** Who leads now, in words. */
function Leading() {
  const names = useShow((state) =>
    (state.lifts ?? [])
      .flatMap((lift) => lift.singers.filter((one) => one.lifted))
      .map((one) => stripName(state, one.strip))
      .join(", "),
  );
  return (
    <span className={names ? "text-sun-text" : "text-soft"} role="status">
      {names ? `${names} up` : "nobody up"}
    </span>
  );
}
