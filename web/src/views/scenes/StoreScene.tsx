import { type FormEvent, useState } from "react";
import { sceneText } from "../../data/scenes";
import { store } from "../../data/show";
import { useBusOptions, useLink, useShow } from "../../data/use";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Entry } from "../../ui/Entry";
import { sending } from "../../ui/sending";

const NONE: readonly (readonly [string, string])[] = [];

interface Props {
  /** The scene behind which a new one lies. */
  after: string | null;
  onStored: (scene: string) => void;
}

/** What stands now, kept as a scene: named, or not, in one press. */
export function StoreScene({ after, onStored }: Props) {
  const link = useLink();
  const [name, setName] = useState("");
  const [what, setWhat] = useState("");
  const mixes = useBusOptions("mix");
  const like = useShow((state) => sceneText(state, after));
  const presets = useShow((state) => state.desk?.scene_presets ?? NONE);
  const preset = what || after || "everything";
  const onSubmit = async (event: FormEvent) => {
    event.preventDefault();
    const before = new Set(store.getState().scene_ids);
    const kept = await sending([[name, setName]], () =>
      link.do({ action: "store_scene", name, preset, after }, { quiet: false }),
    );
    if (!kept) return;
    const made = store.getState().scene_ids.find((one) => !before.has(one));
    if (made) onStored(made);
  };
  return (
    <form className="flex items-center gap-2 flex-wrap" onSubmit={(event) => void onSubmit(event)}>
      <Entry
        label="Name of the new scene"
        placeholder="What happens now"
        value={name}
        onChange={setName}
        maxLength={60}
        className="w-44"
      />
      <Choice
        boxed
        label="What it carries"
        className="h-9 max-w-52"
        value={what}
        options={[
          // the first is what a scene carries that is like no other
          ["", after ? `As ${like}` : (presets[0]?.[1] ?? "")],
          ...presets.slice(after ? 0 : 1),
          ...mixes.map(([mix, word]) => [mix, `Sends of ${word}`] as const),
        ]}
        onChange={setWhat}
      />
      <Button type="submit" tone="main">
        Store
      </Button>
    </form>
  );
}
