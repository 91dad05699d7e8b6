import { useMemo, useState } from "react";
import { sceneNumber, useRunAt } from "../../data/scenes";
import { hasPhrase } from "../../data/search";
import { store, valueIn } from "../../data/show";
import { useShow, useText } from "../../data/use";
import { useCoarse } from "../../ui/media";
import { RowList } from "../../ui/RowList";
import { useTabIndex } from "../../ui/reach";
import { SearchField } from "../../ui/SearchField";

interface Props {
  chosen: string;
  onChoose: (scene: string) => void;
}

/** The scenes in their order; found by number, name or notes. */
export function SceneList({ chosen, onChoose }: Props) {
  const ids = useShow((state) => state.scene_ids);
  const [words, setWords] = useState("");
  const coarse = useCoarse();
  const found = useMemo(() => {
    if (!words.trim()) return ids;
    const said = hasPhrase(words);
    const state = store.getState();
    return ids.filter((scene) =>
      said(
        [
          sceneNumber(state, scene),
          valueIn(state, `${scene}/name`),
          valueIn(state, `${scene}/notes`),
        ].join(" "),
      ),
    );
  }, [ids, words]);
  return (
    <>
      {ids.length > 8 && (
        <SearchField
          label="Find a scene"
          placeholder="Find a scene"
          value={words}
          onChange={setWords}
          className="mb-1.5 w-full"
        />
      )}
      <RowList
        label="Scenes"
        keys={found}
        height={coarse ? 50 : 42}
        shown={chosen}
        row={(scene) => <SceneRow scene={scene} chosen={scene === chosen} onChoose={onChoose} />}
      />
    </>
  );
}

function SceneRow({
  scene,
  chosen,
  onChoose,
}: {
  scene: string;
  chosen: boolean;
  onChoose: (scene: string) => void;
}) {
  const number = useShow((state) => sceneNumber(state, scene));
  const name = useText(`${scene}/name`);
  const skipped = useShow(
    (state) => state.scenes?.scenes.find((one) => one.scene === scene)?.passed ?? false,
  );
  const now = useRunAt("now") === scene;
  const next = useRunAt("next") === scene;
  const cells = useShow(
    (state) => state.scenes?.scenes.find((one) => one.scene === scene)?.cells ?? null,
  );
  return (
    <button
      type="button"
      tabIndex={useTabIndex()}
      aria-current={chosen ? "true" : undefined}
      data-scene={scene}
      onClick={() => onChoose(scene)}
      className={`w-full h-[calc(100%-3px)] flex items-center gap-2.5 px-2.5 rounded-lg border text-left cursor-pointer ${
        chosen ? "bg-raise border-iris" : "bg-floor border-transparent hover:border-line"
      }`}
    >
      <span className="w-10 shrink-0 text-right font-title font-semibold text-iris">{number}</span>
      <span
        dir="auto"
        className={`flex-1 min-w-0 truncate ${skipped ? "text-faint line-through" : ""}`}
      >
        {name}
      </span>
      {now && <span className="text-sun-text text-[12px] font-semibold">now</span>}
      {next && <span className="text-soft text-[12px]">next</span>}
      {!now && !next && cells !== null && (
        <span className="text-faint text-[12px]" title={`${cells} cells`}>
          {cells}
        </span>
      )}
    </button>
  );
}
