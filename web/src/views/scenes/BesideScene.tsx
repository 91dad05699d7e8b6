import { useEffect, useState } from "react";
import { compareScenes } from "../../data/http";
import { sceneText } from "../../data/scenes";
import type { ScenesCompared } from "../../data/types";
import { useShow } from "../../data/use";
import { Choice } from "../../ui/Choice";

/** A scene beside another: what they hold otherwise, strip by strip. */
export function BesideScene({ scene }: { scene: string }) {
  const showId = useShow((state) => state.desk!.show.id);
  const revision = useShow((state) => state.revision);
  const options = useShow((state) =>
    state.scene_ids
      .filter((one) => one !== scene)
      .map((one) => `${one}\t${sceneText(state, one)}`)
      .join("\n"),
  );
  const others = options
    .split("\n")
    .filter(Boolean)
    .map((row) => row.split("\t") as [string, string]);
  const before = useShow(
    (state) => state.scene_ids[state.scene_ids.indexOf(scene) - 1] ?? state.scene_ids[1] ?? "",
  );
  const [chosen, setChosen] = useState("");
  const other = others.some(([one]) => one === chosen) ? chosen : before;
  const [found, setFound] = useState<ScenesCompared | null>(null);
  const [fault, setFault] = useState("");
  useEffect(() => {
    if (!other) return;
    let current = true;
    compareScenes(showId, other, scene).then(
      (reply) => {
        if (!current) return;
        setFound(reply);
        setFault("");
      },
      (error: Error) => current && setFault(error.message),
    );
    return () => {
      current = false;
    };
  }, [showId, other, scene, revision]);
  if (!other) return <p className="text-soft">There is no other scene yet.</p>;
  return (
    <div className="flex-1 min-h-0 flex flex-col gap-2">
      <Choice
        boxed
        label="Beside which scene"
        className="h-9 max-w-72"
        value={other}
        options={others}
        onChange={setChosen}
      />
      {fault && (
        <p role="alert" className="text-coral">
          {fault}
        </p>
      )}
      {found && found.differing === 0 && <p className="text-soft">They hold the same.</p>}
      {found && found.differing > 0 && (
        <ul
          className="scrolls flex-1 min-h-0 rounded-xl border border-line bg-floor px-3 py-2"
          aria-label="What they hold otherwise"
          tabIndex={0}
        >
          {found.differences.map((one) => (
            <li key={`${one.holder} ${one.label}`} className="flex items-baseline gap-2 py-0.5">
              <span>{one.name}</span>
              <span className="text-soft">{one.label}</span>
              <span className="ml-auto whitespace-nowrap">
                <span className="text-faint">{one.one}</span> → {one.other}
              </span>
            </li>
          ))}
          {found.differing > found.differences.length && (
            <li className="text-faint">and {found.differing - found.differences.length} more</li>
          )}
        </ul>
      )}
    </div>
  );
}
