import { useEffectEvent, useLayoutEffect } from "react";

const TYPING = "input, textarea, [role=combobox], [role=listbox], [role=option]";

/**
 * Whether a key pressed there is a letter of something typed or sought, and no key of the view. In a
 * closed list of words only letters are sought: figures and signs are keys, as they were before.
 */
export function isTyping({ target, key }: KeyboardEvent): boolean {
  if (!(target instanceof Element) || !target.matches(TYPING)) return false;
  const closed = target.matches("button[role=combobox][aria-expanded=false]");
  return !closed || isSought(key);
}

/** Whether a key opens a closed list of words, to be sought in it. */
export const isSought = (key: string): boolean => /^\p{L}$/u.test(key);

/** Keys pressed anywhere on the page, for what was drawn last. */
export function useKeys(onKey: (event: KeyboardEvent) => void) {
  const latest = useEffectEvent(onKey);
  // with the drawing itself: an effect comes after it, and a key in between would be lost
  useLayoutEffect(() => {
    const listener = (event: KeyboardEvent) => latest(event);
    window.addEventListener("keydown", listener);
    return () => window.removeEventListener("keydown", listener);
  }, []);
}

/**
 * Ctrl+Enter takes what is shown, Escape leaves it, wherever the hands are. (In a list of fields
 * Enter alone already goes to the next row.)
 */
export function useTakeOrLeave(take: () => void, leave: () => void) {
  useKeys((event) => {
    if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) take();
    if (event.key === "Escape") leave();
  });
}
