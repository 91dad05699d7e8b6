import { isTyping, useKeys } from "../ui/keys";
import { actOf } from "./keys";

type Acts = Readonly<Record<string, (event: KeyboardEvent) => void>>;

// What the browser itself does at these keys, by what has the hand; Space on a link is nobody's.
const PRESSES: Readonly<Record<string, string>> = {
  " ": "button, select, [role=button], [role=grid]",
  Enter: "button, a, select, [role=button], [role=grid]",
};

/** Whether a key presses what has the hand on it. */
function isItsOwn(event: KeyboardEvent): boolean {
  const presses = PRESSES[event.key];
  return Boolean(presses) && event.target instanceof Element && !!event.target.closest(presses!);
}

/**
 * Binds the keys of a view, as the table of keys tells them, wherever on its page they are pressed;
 * what is typed into a field is none of them.
 */
export function useViewKeys(view: string, acts: Acts): void {
  useKeys((event) => {
    if (isTyping(event) || isItsOwn(event)) return;
    const act = actOf(view, event);
    const does = act === null ? undefined : acts[act];
    if (!does) return;
    event.preventDefault();
    does(event);
  });
}
