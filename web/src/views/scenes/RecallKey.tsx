import { sceneText } from "../../data/scenes";
import { useLink, useShow } from "../../data/use";
import { Button } from "../../ui/Button";
import { Deliberate } from "../../ui/Deliberate";

/** Recalls a scene: at one press, or at two where it changes what channels are fed by. */
export function RecallKey({ scene }: { scene: string }) {
  const link = useLink();
  const words = useShow((state) => sceneText(state, scene));
  const told = useShow((state) => (state.scene?.scene === scene ? state.scene : null));
  const recall = (sources: boolean) =>
    void link.do({ action: "recall_scene", scene, sources }, { quiet: false });
  if (told && told.sources > 0)
    return (
      <Deliberate
        says={`Recall ${words} and change ${told.sources} sources`}
        short="Recall"
        className="h-9 coarse:h-11"
        onDone={() => recall(true)}
      />
    );
  return (
    <Button
      tone="main"
      aria-label={`Recall, ${words}`}
      disabled={!!told?.refused}
      onClick={() => recall(false)}
    >
      Recall
    </Button>
  );
}
