import { useEffect, useState } from "react";
import { Link as RouteLink } from "wouter";
import { useRunAt } from "../../data/scenes";
import type { Scene, SceneList } from "../../data/types";
import { useLink, useOn, useShow } from "../../data/use";
import { useViewKeys } from "../../frame/useViewKeys";
import { ViewHead } from "../../frame/ViewHead";
import { Button } from "../../ui/Button";
import { Toggle } from "../../ui/Toggle";
import { GoKey } from "./GoKey";
import { NumberField } from "./NumberField";
import { RunBeside } from "./RunBeside";
import { RunCues } from "./RunCues";
import { SceneBoard } from "./SceneBoard";

const NONE: SceneList["scenes"] = [];

/** The scene behind one in the order that is not passed by; which those are the core says. */
function following(scenes: SceneList["scenes"], from: string | null): string | null {
  const at = scenes.findIndex((one) => one.scene === from);
  return scenes.slice(at + 1).find((one) => !one.passed)?.scene ?? null;
}

/** The show as it runs: now, next, and what pressing go will do to whom. */
export function RunView() {
  const link = useLink();
  const ids = useShow((state) => state.scene_ids);
  const now = useRunAt("now");
  const set = useRunAt("next");
  const chosen = useOn("run/chosen");
  // a rehearsal has a place of its own and sounds nothing: undefined while there is none
  const [rehearsed, setRehearsed] = useState<string | null | undefined>(undefined);
  const rehearsing = rehearsed !== undefined;
  const here = rehearsing ? rehearsed : now;
  const order = useShow((state) => state.scenes?.scenes ?? NONE);
  const next = rehearsing
    ? following(order, rehearsed)
    : (set ?? (now === null ? following(order, null) : null));
  const told = useShow((state) => (state.scene?.scene === next ? state.scene : null));
  const [asked, setAsked] = useState<string | null>(null); // sources change: press again
  useEffect(() => {
    link.watch({ scenes: true });
    return () => link.watch({ scenes: false });
  }, [link]);
  useEffect(() => {
    link.watch({ scene: next });
    return () => link.watch({ scene: null });
  }, [link, next]);

  const go = () => {
    if (next === null) return;
    if (rehearsing) {
      setRehearsed(next);
      return;
    }
    if (told && told.sources > 0 && asked !== next) {
      setAsked(next);
      return;
    }
    setAsked(null);
    void link.do({ action: "go", scene: next, sources: asked === next });
  };
  const beNext = (scene: string | undefined) => {
    if (scene === undefined) return;
    if (rehearsing) setRehearsed(ids[ids.indexOf(scene) - 1] ?? null);
    else
      void link.do({
        action: "moves",
        says: "Another scene is next",
        moves: [{ address: "run/next", value: scene }],
      });
  };
  const step = (by: number) => {
    const at = next === null ? ids.length : ids.indexOf(next);
    beNext(ids[at + by]);
  };
  const unlessHeld = (act: (event: KeyboardEvent) => void) => (event: KeyboardEvent) => {
    const inDialog =
      event.target instanceof Element && event.target.closest("[role=dialog], [role=menu]");
    if (!event.repeat && !inDialog) act(event);
  };
  useViewKeys("run", {
    go: unlessHeld(go),
    before: unlessHeld(() => step(-1)),
    after: unlessHeld(() => step(1)),
  });

  if (ids.length === 0)
    return (
      <>
        <ViewHead title="Run">
          <span className="text-soft">No scene yet.</span>{" "}
          <RouteLink to="/scenes" className="text-sun-text underline">
            Store the first one in Scenes
          </RouteLink>
        </ViewHead>
        <RunCues />
        <RunBeside alone told={null} />
      </>
    );
  /** Recalls what was on before what is on now; in a rehearsal it is only looked at. */
  const again = (scene: string | undefined) => {
    if (scene === undefined) return;
    if (rehearsing) setRehearsed(scene);
    else void link.do({ action: "recall_scene", scene }, { quiet: false });
  };
  const before = here === null ? undefined : ids[ids.indexOf(here) - 1];
  return (
    <>
      <ViewHead title="Run">
        <Toggle
          label="rehearse, without sounding anything"
          pressed={rehearsing}
          tone="sun"
          onChange={(on) => setRehearsed(on ? now : undefined)}
        >
          rehearse
        </Toggle>
        {rehearsing && (
          <span className="text-sun-text" role="status">
            Nothing sounds: go only shows what it would do.
          </span>
        )}
        <span className="flex-1" />
        <NumberField
          onRecall={(scene) => {
            if (rehearsing) setRehearsed(scene);
            else void link.do({ action: "recall_scene", scene }, { quiet: false });
          }}
        />
      </ViewHead>
      <div className="flex-1 min-h-0 flex gap-3 slim:flex-col overflow-y-auto">
        <div className="flex-1 slim:flex-none min-w-0 flex flex-col gap-3 min-h-0">
          <RunCues />
          <SceneBoard scene={here} word={rehearsing ? "Rehearsed" : "Now"} since={!rehearsing} />
          <div className="flex items-end gap-2 shrink-0 flex-wrap phone:flex-col phone:items-stretch border-b-2 border-iris/60 -mb-1">
            <div className="flex items-center gap-2 flex-wrap pb-3">
              <Button onClick={() => step(-1)} disabled={next === ids[0]}>
                Look at the one before
              </Button>
              <Button onClick={() => step(1)} disabled={next === null || next === ids.at(-1)}>
                after
              </Button>
              <Button onClick={() => again(before)} disabled={before === undefined}>
                Recall the one before
              </Button>
              {chosen && !rehearsing && (
                <Button
                  onClick={() =>
                    void link.do({
                      action: "moves",
                      says: "Next in order again",
                      moves: [{ address: "run/next", value: null }],
                    })
                  }
                >
                  In order again
                </Button>
              )}
            </div>
            <span className="flex-1" />
            <span className="text-faint pb-3 coarse:hidden">
              <kbd className="font-sans">Space</kbd> or <kbd className="font-sans">G</kbd>
            </span>
            <GoKey
              onGo={go}
              disabled={next === null || !!told?.refused}
              sources={asked === next && next !== null ? (told?.sources ?? 0) : 0}
            />
          </div>
          <div className="flex-[2] slim:flex-none min-h-56 flex flex-col">
            <SceneBoard scene={next} word="Next" told={told} />
          </div>
        </div>
        <RunBeside told={told as Scene | null} />
      </div>
    </>
  );
}
