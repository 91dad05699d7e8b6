/** The scene that a person works on: kept for the screen alone, through other views and a reload. */
const key = () => `scene of ${localStorage.getItem("show")}`;

export const sceneInHand = (): string | null => sessionStorage.getItem(key());

export const takeInHand = (scene: string): void => sessionStorage.setItem(key(), scene);
