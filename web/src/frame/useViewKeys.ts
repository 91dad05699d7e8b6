import { isTyping, useKeys } from "../ui/keys";
import { actOf } from "./keys";

type Acts = Readonly<Record<string, (event: KeyboardEvent) => void>>;

/** Whether a key that has the hand on it takes the press: Space and Enter press it. */
const isItsOwn = (event: KeyboardEvent): boolean =>
  (event.key === " " || event.key === "Enter") &&
  event.target instanceof Element &&
  event.target.closest("button, a, [role=button], [role=grid]") !== null;

/**
 * Binds the keys of a view, as the table of keys tells them, wherever on its page they are pressed;
 * what is typed into a field is none of them.
 */
export function useViewKeys(view: string, acts: Acts): void {
  useKeys((event) => {
    if (isTyping(event.target) || isItsOwn(event)) return;
    const act = actOf(view, event);
    const does = act === null ? undefined : acts[act];
    if (!does) return;
    event.preventDefault();
    does(event);
  });
}
