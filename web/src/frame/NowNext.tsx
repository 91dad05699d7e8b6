import { Link as RouteLink } from "wouter";
import { sceneNumber, useRunAt } from "../data/scenes";
import { useShow, useText } from "../data/use";

/** The scene that is on and the one that go recalls, in sight from everywhere; nothing without scenes. */
export function NowNext() {
  const now = useRunAt("now");
  const next = useRunAt("next");
  const any = useShow((state) => state.scene_ids.length > 0);
  if (!any) return null;
  return (
    <RouteLink
      to="/run"
      title="Run: what is on and what comes next"
      data-now-next
      className="in-text hover:bg-card rounded-xl px-2 -mx-2 py-0.5 grid grid-cols-[auto_auto_minmax(0,1fr)] gap-x-2 items-baseline leading-snug min-w-0 max-w-64 narrow:max-w-44"
    >
      <Row word="Now" scene={now} strong />
      <Row word="Next" scene={next} />
    </RouteLink>
  );
}

function Row({ word, scene, strong }: { word: string; scene: string | null; strong?: boolean }) {
  const number = useShow((state) => (scene ? sceneNumber(state, scene) : ""));
  const name = useText(`${scene ?? "scene/1"}/name`);
  return (
    <>
      <span className="text-[12.5px] text-faint">{word}</span>
      {scene ? (
        <>
          <span className="text-iris font-semibold text-right">{number}</span>
          <span dir="auto" className={`truncate ${strong ? "font-semibold" : "text-soft"}`}>
            {name}
          </span>
        </>
      ) : (
        <>
          <span />
          <span className="text-faint">none</span>
        </>
      )}
    </>
  );
}
