import type { KeyboardEvent } from "react";

const walk =
  (back: string, on: string) =>
  (event: KeyboardEvent<HTMLElement>): void => {
    const step = event.key === on ? 1 : event.key === back ? -1 : 0;
    if (!step) return;
    event.preventDefault();
    const all = [...event.currentTarget.querySelectorAll<HTMLElement>("a[href]")];
    all[all.indexOf(document.activeElement as HTMLElement) + step]?.focus();
  };

/** Up and down walk the links of a list that is one stop for the Tab key; Enter opens one. */
export const walkLinks = walk("ArrowUp", "ArrowDown");
/** The same for links beside one another, by left and right. */
export const walkAcross = walk("ArrowLeft", "ArrowRight");
