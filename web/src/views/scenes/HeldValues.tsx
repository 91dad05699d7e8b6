import { useEffect, useEffectEvent, useRef, useState } from "react";
import { sceneNumber } from "../../data/scenes";
import { notify } from "../../data/show";
import type { Ask, Preview } from "../../data/types";
import { useLink, useShow } from "../../data/use";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { InRow, useRows } from "../../ui/reach";
import { TypedField } from "../../ui/TypedField";
import { ONE_MOMENT, Waiting } from "../../ui/Waiting";

type Scope = "same" | "onward" | "chosen";
const SCOPES = [
  ["same", "while it stays the same"],
  ["onward", "from here to the end"],
  ["chosen", "in these scenes"],
] as const;

interface Asked {
  leaf: string;
  typed: string;
  scope: Scope;
  /** Which scenes, where they are chosen by their numbers. */
  numbers: string;
  preview: Preview;
  /** Another look is under way: what is shown is of before. */
  looking?: boolean;
}

/** Every value that a scene has of a strip; typed anew here, and in the scenes that follow too. */
export function HeldValues({ scene, holder }: { scene: string; holder: string }) {
  const link = useLink();
  const held = useShow((state) =>
    state.held?.scene === scene && state.held.holder === holder ? state.held : null,
  );
  const [asked, setAsked] = useState<Asked | null>(null);
  const rows = useRows((held?.values ?? []).filter((one) => !one.asleep).map((one) => one.leaf));
  useEffect(() => {
    link.watch({ held: holder });
    return () => link.watch({ held: null });
  }, [link, holder]);
  const here = useShow((state) => sceneNumber(state, scene));
  const ask = ({ leaf, typed, scope, numbers }: Omit<Asked, "preview">): Ask => ({
    action: "set_in_scenes",
    scene,
    holder,
    leaf,
    typed,
    scope,
    numbers: scope === "chosen" ? numbers : "",
  });
  const look = async (what: Omit<Asked, "preview">) => {
    setAsked((before) => before && { ...before, ...what, looking: true });
    const preview = await link.try(ask(what));
    if (typeof preview !== "string") {
      setAsked({ ...what, preview, looking: false });
      return;
    }
    notify(preview, "refused");
    setAsked(null); // nothing is shown that could be taken for what was typed
  };
  // who hears it is told behind the preview, and not gone on with where the link broke: asked anew
  const live = useShow((state) => state.status === "live");
  const lookAgain = useEffectEvent(() => asked && void look(asked));
  const broke = useRef(false);
  useEffect(() => {
    if (!live) broke.current = true;
    else if (broke.current) {
      broke.current = false;
      lookAgain();
    }
  }, [live]);
  if (held === null) return <Waiting className="w-80" />;
  return (
    <section
      aria-label={`Values of ${held.name}`}
      data-held={holder}
      data-subject={holder}
      className="w-80 slim:w-full slim:h-80 shrink-0 min-h-0 flex flex-col rounded-xl border border-line bg-floor p-2"
    >
      <div className="flex items-center gap-2 pb-1.5">
        <h2 dir="auto" className="flex-1 min-w-0 truncate font-semibold">
          {held.name}
        </h2>
      </div>
      {asked && (
        <Reaching
          preview={asked.preview}
          looking={asked.looking ?? false}
          scope={asked.scope}
          numbers={asked.numbers}
          onScope={(scope) => void look({ ...asked, scope })}
          onNumbers={(numbers) => void look({ ...asked, numbers })}
          onTake={() => {
            void link.do(ask(asked), { quiet: false });
            setAsked(null);
          }}
          onLeave={() => setAsked(null)}
        />
      )}
      {held.values.length === 0 ? (
        <p className="text-soft">
          Nothing of it is in this scene. Put something in by the table: it takes what stands now.
        </p>
      ) : (
        <ul
          {...rows.hand}
          className="scrolls min-h-0 flex-1"
          aria-label="Values in the scene"
          data-grid
        >
          {held.values.map((one) => (
            <InRow key={one.leaf} of={one.leaf} rows={rows}>
              <li
                data-row={one.leaf}
                className={`flex items-center gap-2 min-h-8 ${one.asleep ? "opacity-60" : ""}`}
              >
                <span dir="auto" className="flex-1 min-w-0 truncate text-soft" title={one.label}>
                  {one.label}
                </span>
                {one.value !== one.stands && (
                  <span
                    className="text-faint text-[12px] whitespace-nowrap"
                    title="What stands now"
                  >
                    {one.stands}
                  </span>
                )}
                {one.asleep ? (
                  <span className="w-24 text-right pr-1.5 text-faint">{one.value}</span>
                ) : (
                  <TypedField
                    boxed
                    align="right"
                    label={`${one.label} of ${held.name} in the scene`}
                    value={one.value}
                    className="w-24 coarse:h-11"
                    data={{ "data-column": "value" }}
                    onCommit={(typed) =>
                      void look({ leaf: one.leaf, typed, scope: "same", numbers: here })
                    }
                  />
                )}
              </li>
            </InRow>
          ))}
        </ul>
      )}
    </section>
  );
}

interface ReachingProps {
  preview: Preview;
  looking: boolean;
  scope: Scope;
  numbers: string;
  onScope: (scope: Scope) => void;
  onNumbers: (numbers: string) => void;
  onTake: () => void;
  onLeave: () => void;
}

/** Who hears a change in a scene, in words; undefined: not found out yet. */
function heardBy(hearing: readonly string[] | null | undefined): string {
  if (hearing === undefined) return ONE_MOMENT.toLowerCase();
  if (hearing === null) return "it cannot be recalled, so who hears it is not known";
  if (hearing.length === 0) return "nobody hears it";
  const more = hearing.length > 4 ? ` and ${hearing.length - 4} more` : "";
  return `heard by ${hearing.slice(0, 4).join(", ")}${more}`;
}

/** Every scene that an update changes, and who hears it there; and those that do not carry it. */
function Reaching(props: ReachingProps) {
  const { preview, scope, onScope, onTake, onLeave } = props;
  const hearing = useShow((state) => (state.hearing?.id === preview.id ? state.hearing : null));
  const changed = preview.scenes.filter((one) => one.now);
  const without = preview.scenes.length - changed.length;
  return (
    <div
      className="rounded-lg border border-iris bg-card p-2 mb-2 flex flex-col gap-1.5 shrink-0 max-h-[60%]"
      data-testid="reaching"
    >
      <Choice
        boxed
        label="Where it is changed"
        value={scope}
        options={SCOPES}
        className="w-full h-8 coarse:h-11"
        onChange={(to) => onScope(to as Scope)}
      />
      {scope === "chosen" && (
        <TypedField
          boxed
          label="Scenes by their numbers"
          value={props.numbers}
          className="w-full h-8 coarse:h-11"
          onCommit={props.onNumbers}
        />
      )}
      <ul className="scrolls min-h-0" tabIndex={0} aria-label="Scenes that it changes">
        {changed.map((one) => (
          <li key={one.scene} className="py-0.5">
            <span className="flex gap-2">
              <span dir="auto" className="flex-1 min-w-0 truncate">
                {one.name}
              </span>
              <span className="whitespace-nowrap">
                <span className="text-faint">{one.was}</span> → {one.now}
                {one.stopped && <span className="text-sun-text"> at its end</span>}
              </span>
            </span>
            <span className="text-faint text-[12px]">
              {heardBy(hearing?.scenes.get(one.scene))}
            </span>
          </li>
        ))}
      </ul>
      {without > 0 && <p className="text-soft text-[13px]">{without} scenes do not carry it</p>}
      <span className="flex gap-2">
        <Button small tone="main" disabled={props.looking || changed.length === 0} onClick={onTake}>
          {props.looking
            ? ONE_MOMENT
            : `Change ${changed.length} ${changed.length === 1 ? "scene" : "scenes"}`}
        </Button>
        <Button small tone="quiet" onClick={onLeave}>
          Leave it
        </Button>
      </span>
    </div>
  );
}
