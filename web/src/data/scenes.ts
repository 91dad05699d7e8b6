/** Scenes as a page knows them: their numbers and names are values. */
import { type ShowState, valueIn } from "./show";
import { useShow } from "./use";

/** A scene's number as people say it: "12", "12.5". */
export const sceneNumber = (state: ShowState, scene: string): string =>
  String(Number(Number(valueIn(state, `${scene}/number`)).toFixed(3)));

/** "12 Bridge", or "" for no scene. */
export function sceneText(state: ShowState, scene: string | null): string {
  if (!scene) return "";
  return `${sceneNumber(state, scene)} ${valueIn(state, `${scene}/name`)}`.trim();
}

/** What `run/now` or `run/next` names, as long as that scene is in the order. */
export const useRunAt = (at: "now" | "next"): string | null =>
  useShow((state) => {
    const scene = valueIn(state, `run/${at}`);
    return typeof scene === "string" && state.scene_ids.includes(scene) ? scene : null;
  });
