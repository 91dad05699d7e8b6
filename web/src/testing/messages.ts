/** Messages as the server would send them, with nothing in them that a test does not say. */
import type { Preview, Scene, SceneList, ToScreen } from "../data/types";

export const preview = (told: Partial<Preview> = {}): Preview => ({
  type: "preview",
  id: "00000000-0000-0000-0000-000000000002",
  says: "",
  changes: 1,
  renumbered: [],
  values: [],
  heard: [],
  breaks: [],
  leaving: [],
  shares: [],
  powered: [],
  pairs: [],
  told: [],
  compensation: null,
  follows: [],
  following: 0,
  losses: [],
  silenced: [],
  opened: [],
  moved: 0,
  scenes: [],
  company: null,
  ...told,
});

export const scene = (told: Partial<Scene> = {}): Scene => ({
  type: "scene",
  scene: "scene/1",
  says: "Nothing changes.",
  refused: "",
  warns: [],
  on: [],
  listeners: [],
  changes: [],
  changing: 0,
  beneath: 0,
  pinned: [],
  left_out: [],
  sources: 0,
  aspects: [
    ["fader", "Fader"],
    ["mute", "Mute"],
    ["sends", "Sends"],
  ],
  strips: [],
  ...told,
});

/** Scenes by their ids, in the order told; `passed`: those that go passes by. */
export const sceneList = (ids: readonly number[], passed: readonly number[] = []): SceneList => ({
  type: "scenes",
  scenes: ids.map((id) => ({
    scene: `scene/${id}`,
    strips: 3,
    cells: 7,
    passed: passed.includes(id),
  })),
  pins: [],
});

/** Values of scenes by their numbers: "1 Overture". */
export const sceneValues = (...scenes: string[]): Record<string, string | number> =>
  Object.fromEntries(
    scenes.flatMap((words, index) => {
      const [number, ...name] = words.split(" ");
      const at = `scene/${index + 1}`;
      return [
        [`${at}/number`, Number(number)],
        [`${at}/name`, name.join(" ")],
      ];
    }),
  );

/** What was noticed: nothing, but what a test says. */
export const noticed = (told: object = {}): ToScreen =>
  ({
    type: "noticed",
    alike: [],
    revision: 1,
    findings: [],
    promises: [],
    preamps: [],
    steps: [],
    ...told,
  }) as ToScreen;
