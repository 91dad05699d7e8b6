/**
 * Edits that a page had not sent when it was closed, in the storage of the browser: the next page of
 * the same person on the same show finds them. Each has its id, so whoever sends it, it counts once.
 */
import type { FromScreen } from "./types";

export type Unsent = Extract<FromScreen, { type: "do" }>;

interface Kept {
  at: number;
  who: string;
  messages: Unsent[];
}

/** A page that says nothing for so long is gone: browsers let the timers of hidden ones run once a minute. */
const GONE_MS = 70_000;
const LEAF = "unsent";

const keyOf = (show: string, page: string): string => `${LEAF}/${show}/${page}`;

/** Keep what a page has not had answered; nothing: forget it. `closing`: the page says that it goes. */
export function keepUnsent(
  show: string,
  page: string,
  who: string,
  messages: Unsent[],
  closing: boolean,
): void {
  const key = keyOf(show, page);
  try {
    if (messages.length === 0) localStorage.removeItem(key);
    else localStorage.setItem(key, JSON.stringify({ at: closing ? 0 : Date.now(), who, messages }));
  } catch {
    // no room or no storage: then it is as it was without
  }
}

/** Take what closed pages of this person left, in the order in which it was asked for. */
export function takeUnsent(show: string, page: string, who: string): Unsent[] {
  const found: Kept[] = [];
  for (const key of Object.keys(localStorage)) {
    if (!key.startsWith(`${LEAF}/${show}/`) || key === keyOf(show, page)) continue;
    const kept = read(key);
    if (kept && (kept.who !== who || Date.now() - kept.at < GONE_MS)) continue;
    localStorage.removeItem(key);
    if (kept) found.push(kept);
  }
  found.sort((one, other) => one.at - other.at);
  return found.flatMap((kept) => kept.messages);
}

function read(key: string): Kept | null {
  try {
    const kept = JSON.parse(localStorage.getItem(key) ?? "null") as Kept | null;
    return kept && Array.isArray(kept.messages) ? kept : null;
  } catch {
    return null;
  }
}
