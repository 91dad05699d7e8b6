import { useEffect, useState } from "react";
import { Link as RouteLink } from "wouter";
import { stripName, useLink, useShow, useText } from "../../data/use";
import { SoloMode } from "../../frame/SoloPill";
import { useViewKeys } from "../../frame/useViewKeys";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Empty, ViewHead } from "../../ui/Panel";
import { useAsked } from "../../ui/useAsked";
import { AloneKey } from "./AloneKey";
import { Bay } from "./Bay";
import { type BayView, useSurface, viewOfBay } from "./surface";

/** The surface: bays of faders, each showing a bank, what is unfolded, or a listener's sends. */
export function BanksView() {
  const link = useLink();
  const bays = useShow((state) => state.desk!.bays);
  const banks = useShow((state) => state.banks);
  const strips = useShow((state) => state.channels.length);
  const [surface, change] = useSurface();
  const mode = useText("show/solo");
  const [editing, setEditing] = useState(false);
  const shown = Math.min(surface.bay, bays.length);
  const mixes = useShow((state) =>
    state.mixes.map((n) => `mix/${n}\t${stripName(state, `mix/${n}`)}`).join("\n"),
  )
    .split("\n")
    .filter(Boolean)
    .map((line) => line.split("\t") as [string, string]);
  const listen = mixes.some(([mix]) => mix === surface.listen) ? surface.listen : null;
  const views = bays.map((_, index) => viewOfBay(surface, index + 1, banks));
  const unfold = [...new Set(views.flatMap((view) => view.unfolded.slice(-1)))].sort().join(" ");
  useEffect(() => {
    link.watch({ levels: true, unfold: unfold.split(" ").filter(Boolean) });
  }, [link, unfold]);
  useEffect(() => () => link.watch({ levels: false, unfold: [] }), [link]);

  const setBay = (bay: number, view: BayView) =>
    change({ bays: { ...surface.bays, [bay]: view }, bay });
  // a bank that was looked for is called on the bay in sight, and what was to be unfolded is, there too
  useAsked(
    "bank",
    (bank) => banks.includes(Number(bank)),
    (bank) => setBay(shown, { bank: Number(bank), unfolded: [], page: 0 }),
  );
  const members = useShow((state) => state.members);
  useAsked(
    "unfold",
    (thing) => (members.get(thing)?.size ?? 0) > 0,
    (thing) => setBay(shown, { ...views[shown - 1]!, unfolded: [thing], page: 0 }),
  );
  const view = views[shown - 1]!;
  useViewKeys("banks", {
    call: (event) => {
      const bank = banks[Number(event.key) - 1];
      if (bank) setBay(shown, { bank, unfolded: [], page: 0 });
    },
    fold: () => {
      if (view.unfolded.length > 0)
        setBay(shown, { ...view, unfolded: view.unfolded.slice(0, -1), page: 0 });
    },
  });

  return (
    <>
      <ViewHead title="Banks">
        {bays.length > 1 && (
          <span className="flex gap-1" role="group" aria-label="Bay in sight">
            {bays.map((bay, index) => (
              <Button
                key={bay.name}
                tone={index + 1 === shown ? "plain" : "quiet"}
                aria-pressed={index + 1 === shown}
                onClick={() => change({ bay: index + 1 })}
              >
                {bay.name}
              </Button>
            ))}
          </span>
        )}
        <span className="flex-1" />
        {listen === null && (
          <span className="flex items-center gap-1.5 text-faint phone:hidden">
            Solo
            <SoloMode mode={mode} />
          </span>
        )}
        <AloneKey />
        {mixes.length > 0 && (
          <span className={`flex items-center gap-1.5 ${listen ? "text-iris" : "text-faint"}`}>
            Listen as
            <Choice
              boxed
              label="Listen as"
              value={listen ?? ""}
              options={[["", "nobody"], ...mixes]}
              onChange={(mix) => change({ listen: mix || null })}
            />
          </span>
        )}
        <Button aria-pressed={editing} onClick={() => setEditing(!editing)}>
          {editing ? "Done" : "Edit banks"}
        </Button>
      </ViewHead>
      {banks.length === 0 && !editing ? (
        <Empty title="No bank yet">
          <p>A bank says which strip lies under which fader. Name some, then type their strips.</p>
          <Button tone="main" onClick={() => setEditing(true)}>
            Make banks
          </Button>
          {strips === 0 && (
            <RouteLink to="/patch" className="text-sun-text underline">
              First give channels a source, in Patch
            </RouteLink>
          )}
        </Empty>
      ) : (
        <Bay
          key={shown}
          number={shown}
          name={bays[shown - 1]!.name}
          faders={bays[shown - 1]!.faders}
          view={views[shown - 1]!}
          listen={listen}
          editing={editing}
          onView={(view) => setBay(shown, view)}
        />
      )}
    </>
  );
}
