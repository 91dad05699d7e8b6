/**
 * Edits that a page had not sent when it was closed, in the storage of the browser: the next page of
 * the same person on the same show finds them. Each has its id, so whoever sends it, it counts once.
 */
import { store } from "./show";
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

/** So many ids are asked about at once: what is beyond, a person says. */
const MOST_KEPT = 1024;

/** What pages left behind that had no answer to it when they were closed, and what this one leaves. */
export class LeftBehind {
  readonly #show: string;
  readonly #page: string;
  readonly #ask: (ids: string[]) => void;
  readonly #send: (messages: Unsent[]) => void;
  #found: Unsent[] = [];

  /** `ask`: asks the server which of these are kept; it is answered by `judge`. */
  constructor(
    show: string,
    page: string,
    ask: (ids: string[]) => void,
    send: (messages: Unsent[]) => void,
  ) {
    this.#show = show;
    this.#page = page;
    this.#ask = ask;
    this.#send = send;
  }

  /** Keep what this page has no answer to, and what it took over and nobody has judged yet. */
  keep(waiting: Unsent[], closing: boolean): void {
    const { me, unsent } = store.getState();
    if (!me) return;
    const messages = [...this.#found, ...unsent, ...waiting];
    const key = keyOf(this.#show, this.#page);
    try {
      if (messages.length === 0) localStorage.removeItem(key);
      else {
        const kept = { at: closing ? 0 : Date.now(), who: me.name, messages };
        localStorage.setItem(key, JSON.stringify(kept));
      }
    } catch {
      // no room or no storage: then it is as it was without
    }
  }

  /** What a closed page had no answer to may have come through all the same: the server knows. */
  look(): void {
    const { me, revision, status, unsent } = store.getState();
    if (!me || revision === null || status !== "live") return;
    if (unsent.length > 0 || this.#found.length > 0) return;
    this.#found = takeUnsent(this.#show, this.#page, me.name);
    this.ask();
  }

  /** Ask about what was found: also anew, where the answer may have been lost. */
  ask(): void {
    const ids = this.#found.slice(0, MOST_KEPT).map((message) => message.id);
    if (ids.length > 0) this.#ask(ids);
  }

  /** What was not kept is sent as it was if nothing has moved since it was asked for; else a person is asked. */
  judge(kept: ReadonlySet<string>): void {
    const found = this.#found.filter((message) => !kept.has(message.id));
    const { revision } = store.getState();
    this.#found = [];
    if (found.length === 0 || revision === null) return;
    if (found.every((message) => (message.seen ?? -1) >= revision)) this.#send(found);
    else store.setState({ unsent: found });
  }
}

/** Take what closed pages of this person left, in the order in which it was asked for. */
function takeUnsent(show: string, page: string, who: string): Unsent[] {
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
