import { useEffect } from "react";
import { useLocation, useParams } from "wouter";
import { numberOf } from "../../data/address";
import { useRunAt } from "../../data/scenes";
import { useLink, useShow } from "../../data/use";
import { ViewHead } from "../../frame/ViewHead";
import { Empty } from "../../ui/Panel";
import { sceneInHand, takeInHand } from "./inHand";
import { Pins } from "./Pins";
import { SceneDetail } from "./SceneDetail";
import { SceneList } from "./SceneList";
import { StoreScene } from "./StoreScene";

/** The scenes of the show: stored, looked into without a recall, changed, compared. */
export function ScenesView() {
  const link = useLink();
  const [, navigate] = useLocation();
  const ids = useShow((state) => state.scene_ids);
  const asked = useParams().scene;
  const now = useRunAt("now");
  // what was in hand before another view, else where the run is, else the last: new ones lie behind
  const known = [`scene/${asked}`, sceneInHand(), now, ids.at(-1)];
  const scene = known.find((one) => one && ids.includes(one)) ?? null;
  useEffect(() => {
    if (scene) takeInHand(scene);
  }, [scene]);
  useEffect(() => {
    link.watch({ scenes: true, company: true });
    return () => link.watch({ scenes: false, company: false });
  }, [link]);
  useEffect(() => {
    link.watch({ scene });
    return () => link.watch({ scene: null });
  }, [link, scene]);
  return (
    <>
      <ViewHead title="Scenes">
        <StoreScene after={scene} onStored={(made) => navigate(`/scenes/${numberOf(made)}`)} />
      </ViewHead>
      {scene === null ? (
        <Empty title="No scene yet">
          <p>
            A scene keeps how strips stand: which of them, and what of each, you choose. Store one
            of all that is in use; go on, and store the next.
          </p>
        </Empty>
      ) : (
        <div className="flex-1 min-h-0 flex gap-3 phone:flex-col phone:overflow-y-auto">
          <div className="w-72 slim:w-60 phone:!w-full shrink-0 flex flex-col min-h-0">
            <div className="flex-1 min-h-0 flex flex-col phone:flex-none phone:h-[46vh]">
              <SceneList chosen={scene} onChoose={(one) => navigate(`/scenes/${numberOf(one)}`)} />
            </div>
            <Pins />
          </div>
          <SceneDetail key={scene} scene={scene} />
        </div>
      )}
    </>
  );
}
