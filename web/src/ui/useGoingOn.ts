import { type RefObject, useLayoutEffect, useRef } from "react";

/** The field that was just taken away with the hand in it, and what stood there. */
let left: { name: string; text: string } | null = null;

/**
 * Somebody makes things one after another, and what the first makes draws the form anew elsewhere:
 * the hand, and what was typed by then, go on in the field of the same name.
 */
export function useGoingOn(
  name: string,
  text: string,
  set: (text: string) => void,
): RefObject<HTMLInputElement | null> {
  const field = useRef<HTMLInputElement>(null);
  const now = useRef(text);
  useLayoutEffect(() => {
    now.current = text;
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: only what is drawn anew goes on
  useLayoutEffect(() => {
    const input = field.current;
    if (left?.name === name) {
      set(left.text);
      input?.focus();
    }
    left = null;
    return () => {
      if (document.activeElement !== input) return;
      left = { name, text: now.current };
      setTimeout(() => (left = null)); // what is not drawn in the same moment is not gone on with
    };
  }, []);
  return field;
}
