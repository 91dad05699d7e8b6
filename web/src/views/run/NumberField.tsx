import { type FormEvent, useState } from "react";
import { sceneNumber } from "../../data/scenes";
import { notify, store } from "../../data/show";
import { Button } from "../../ui/Button";
import { Entry } from "../../ui/Entry";

/** A scene by its number, whatever its condition. */
export function NumberField({ onRecall }: { onRecall: (scene: string) => void }) {
  const [typed, setTyped] = useState("");
  const onSubmit = (event: FormEvent) => {
    event.preventDefault();
    const state = store.getState();
    const wanted = String(Number(typed.trim().replace(",", ".")));
    const scene = state.scene_ids.find((one) => sceneNumber(state, one) === wanted);
    if (!scene) {
      notify(`There is no scene ${typed.trim() || "without a number"}.`, "refused");
      return;
    }
    setTyped("");
    onRecall(scene);
  };
  return (
    <form className="flex items-center gap-2" onSubmit={onSubmit}>
      <Entry
        label="Recall a scene by its number"
        placeholder="number"
        value={typed}
        onChange={setTyped}
        maxLength={8}
        className="w-24"
      />
      <Button type="submit" disabled={!typed.trim()}>
        Recall
      </Button>
    </form>
  );
}
