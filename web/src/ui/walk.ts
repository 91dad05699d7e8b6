import type { KeyboardEvent } from "react";

/** Up and down walk the links of a list that is one stop for the Tab key; Enter opens one. */
export function walkLinks(event: KeyboardEvent<HTMLElement>): void {
  const step = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
  if (!step) return;
  event.preventDefault();
  const all = [...event.currentTarget.querySelectorAll<HTMLElement>("a[href]")];
  all[all.indexOf(document.activeElement as HTMLElement) + step]?.focus();
}
