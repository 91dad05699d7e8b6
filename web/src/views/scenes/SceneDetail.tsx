import { useState } from "react";
import { useSetByHand } from "../../data/hand";
import { sceneText } from "../../data/scenes";
import { useLink, useOn, useShow, useText } from "../../data/use";
import { Button } from "../../ui/Button";
import { Tabs } from "../../ui/Tabs";
import { Toggle } from "../../ui/Toggle";
import { TypedField } from "../../ui/TypedField";
import { Waiting } from "../../ui/Waiting";
import { BesideScene } from "./BesideScene";
import { RecallKey } from "./RecallKey";
import { SceneCells } from "./SceneCells";
import { SceneConditions } from "./SceneConditions";
import { SceneEffect } from "./SceneEffect";
import { SceneTimes } from "./SceneTimes";

/** One scene: its terms; what its recall would do; what it holds; how it differs from another. */
export function SceneDetail({ scene }: { scene: string }) {
  const [tab, setTab] = useState(() => sessionStorage.getItem("scene-tab") ?? "does");
  const choose = (to: string) => {
    sessionStorage.setItem("scene-tab", to); // from scene to scene the same is looked at
    setTab(to);
  };
  const told = useShow((state) => (state.scene?.scene === scene ? state.scene : null));
  const carried = told?.strips.filter((one) =>
    one.marks.some((mark) => mark === "all" || mark === "some"),
  ).length;
  return (
    <section
      aria-label="Scene"
      className="flex-1 min-w-0 min-h-0 phone:min-h-[640px] flex flex-col gap-2"
      data-looked-at={told ? scene : undefined}
    >
      <Terms scene={scene} />
      <Tabs
        label="About the scene"
        chosen={tab}
        onChoose={choose}
        tabs={[
          { key: "does", word: "What it does", note: told ? String(told.changing) : "" },
          { key: "holds", word: "What it holds", note: carried ? `${carried} strips` : "" },
          { key: "beside", word: "Beside another", note: "" },
          { key: "times", word: "Times", note: "" },
        ]}
      />
      {tab === "times" ? (
        <SceneTimes scene={scene} />
      ) : tab === "beside" ? (
        <BesideScene scene={scene} />
      ) : told === null ? (
        <Waiting />
      ) : tab === "does" ? (
        <SceneEffect scene={told} />
      ) : (
        <SceneCells scene={told} />
      )}
    </section>
  );
}

function Terms({ scene }: { scene: string }) {
  const link = useLink();
  const set = useSetByHand();
  const name = useText(`${scene}/name`);
  const number = useText(`${scene}/number`);
  const notes = useText(`${scene}/notes`);
  const skipped = useOn(`${scene}/skipped`);
  const words = useShow((state) => sceneText(state, scene));
  return (
    <div className="flex flex-col gap-2 shrink-0">
      <div className="flex items-center gap-2 flex-wrap">
        <TypedField
          boxed
          align="right"
          label="Number of the scene"
          value={String(Number(number))}
          className="w-16 h-9 coarse:h-11 font-title font-semibold text-iris"
          onCommit={(typed) =>
            void link.do({ action: "renumber_scene", scene, number: typed }, { quiet: false })
          }
        />
        <TypedField
          boxed
          label="Name of the scene"
          value={name}
          maxLength={60}
          className="flex-1 min-w-40 h-9 coarse:h-11 font-title font-semibold text-[16px]"
          onCommit={(text) => set(`${scene}/name`, text)}
        />
        <RecallKey scene={scene} />
      </div>
      <div className="flex items-center gap-2 flex-wrap">
        <TypedField
          boxed
          label="Notes of the scene"
          placeholder="What happens, who comes on, what to watch"
          value={notes}
          maxLength={400}
          className="flex-1 min-w-48 h-8 coarse:h-11"
          onCommit={(text) => set(`${scene}/notes`, text)}
        />
        <Toggle
          label={`skipped by go, ${words}`}
          pressed={skipped}
          onChange={(on) => set(`${scene}/skipped`, on ? "on" : "off")}
        >
          skipped by go
        </Toggle>
        <Button
          small
          aria-label={`Store again, ${words}`}
          title="Put what stands now into what it carries"
          onClick={() => void link.do({ action: "store_again", scene }, { quiet: false })}
        >
          Store again
        </Button>
        <Button
          small
          aria-label={`Duplicate, ${words}`}
          onClick={() => void link.do({ action: "duplicate_scene", scene }, { quiet: false })}
        >
          Duplicate
        </Button>
        <Button
          small
          tone="quiet"
          aria-label={`Number anew from here, ${words}`}
          title="Whole numbers for this scene and all behind it, one after another"
          onClick={() => void link.do({ action: "number_anew", scene }, { quiet: false })}
        >
          Number anew
        </Button>
        <Button
          small
          tone="quiet"
          aria-label={`Remove, ${words}`}
          onClick={() =>
            void link.do({ action: "remove_scenes", scenes: [scene] }, { quiet: false })
          }
        >
          Remove
        </Button>
      </div>
      <SceneConditions scene={scene} />
    </div>
  );
}
