/**
 * The phone's line to the desk. Moves have ids and are kept, in the page's storage too, until they are
 * answered: through a network that is away, a reload, a server that starts again. What a lock refuses
 * is thrown away and told; nothing is kept back for later.
 */
import { newId } from "../data/id";
import type { FromDesk, FromPhone, PhoneAsk, PhoneMixes } from "./types";

export type Status = "connecting" | "live" | "away" | "ended";

export interface State<Told = PhoneMixes> {
  status: Status;
  told: Told | null;
  /** What was said last to whoever holds the phone; "" for nothing. */
  says: string;
  /** Moves that are not answered yet. */
  waiting: number;
  /** What became of the last call to the desk. */
  called: { text: string; seen: boolean; by: string } | null;
  /** Another phone's finger: on what of which mix, and whose. */
  finger: { mix: string; of: string; who: string } | null;
}

type Turn = Extract<FromPhone, { type: "undo" | "redo" }>;
type Call = Extract<FromPhone, { type: "call" }>;
interface Do<Ask> {
  type: "do";
  id: string;
  gesture: string;
  ask: Ask;
  seen: number;
}
type Message<Ask> = Do<Ask> | Turn | Call;
type Sent<Ask> = Message<Ask> | { type: "ping" } | { type: "let_go"; gesture: string };

/** What the desk tells all of, with the revision that it is of. */
interface Whole {
  type: string;
  revision: number;
}

const ENDED = 4403;
const NOT_SIGNED_IN = 4401;
const PING_MS = 4_000;
const DEAD_MS = 9_000;
const MOST = 400;
/** So long a finger of another shows after its last move. */
const FINGER_MS = 1_500;
const NO_NETWORK_MS = 90_000;

export class DeskLink<Told extends Whole, Ask extends { action: string }> {
  /** Where it leads, below the host. */
  readonly #path: string;
  /** By which key what waits is kept in the page's storage. */
  readonly #key: string;
  /** Whether fingers hold what they are on until they leave it. */
  readonly #holds: boolean;
  readonly #whole: Told["type"];
  readonly #changed: (state: State<Told>) => void;
  #state: State<Told> = {
    status: "connecting",
    told: null,
    says: "",
    waiting: 0,
    called: null,
    finger: null,
  };
  #socket: WebSocket | null = null;
  #waiting: Message<Ask>[];
  #tries = 0;
  #heardAt = 0;
  readonly #timer: ReturnType<typeof setInterval>;
  #opening: ReturnType<typeof setTimeout> | undefined;
  #lifting: ReturnType<typeof setTimeout> | undefined;
  #stopped = false;

  constructor(
    how: { path: string; key: string; whole: Told["type"]; holds?: boolean },
    changed: (state: State<Told>) => void,
  ) {
    this.#path = how.path;
    this.#key = how.key;
    this.#whole = how.whole;
    this.#holds = how.holds ?? false;
    this.#changed = changed;
    this.#waiting = this.#left();
    this.#open();
    this.#timer = setInterval(() => this.#look(), 1_000);
    window.addEventListener("online", this.#again);
    window.addEventListener("offline", this.#lost);
    document.addEventListener("visibilitychange", this.#again);
  }

  /** A finger's move; of one gesture an unsent earlier place of the same counts no more. */
  move(ask: Ask, gesture: string): void {
    const seen = this.#state.told?.revision ?? 0;
    const live = this.#state.status === "live";
    if (!live && ask.action !== "to_start") {
      const joins = (one: Message<Ask>) =>
        one.type === "do" &&
        one.gesture === gesture &&
        one.ask.action === ask.action &&
        !("by" in ask && ask.by);
      this.#waiting = this.#waiting.filter((one) => !joins(one));
    }
    this.#take({ type: "do", id: newId(), gesture, ask, seen });
  }

  /** A finger leaves what it held. */
  letGo(gesture: string): void {
    if (this.#state.status === "live") this.#send({ type: "let_go", gesture });
  }

  turn(what: "undo" | "redo"): void {
    this.#take({ type: what, id: newId() });
  }

  /** Call the desk about a mix, in words. */
  call(mix: string, text: string): void {
    this.#take({ type: "call", id: newId(), mix, text });
  }

  /** Somebody read what was said. */
  read(): void {
    this.#set({ says: "" });
  }

  stop(): void {
    this.#stopped = true;
    clearInterval(this.#timer);
    window.removeEventListener("online", this.#again);
    window.removeEventListener("offline", this.#lost);
    document.removeEventListener("visibilitychange", this.#again);
    this.#socket?.close();
  }

  #take(message: Message<Ask>): void {
    if (this.#waiting.length >= MOST) return;
    this.#waiting.push(message);
    this.#keep();
    // behind what waits from before: that is sent first, once the desk has said where all stands
    if (this.#state.status === "live") this.#send(message);
  }

  #send(message: Sent<Ask>): void {
    if (this.#socket?.readyState === WebSocket.OPEN) this.#socket.send(JSON.stringify(message));
  }

  readonly #again = (): void => {
    if (document.visibilityState === "hidden") return;
    this.#tries = 0;
    if (this.#state.status === "live") this.#look();
    else if (this.#state.status !== "ended" && this.#socket?.readyState !== WebSocket.CONNECTING)
      this.#open();
  };

  /** Is anybody there? A network can die without a word. */
  #look(): void {
    if (this.#stopped || this.#state.status === "ended") return;
    const silent = Date.now() - this.#heardAt;
    if (this.#state.status === "live" && silent > DEAD_MS) this.#lost();
    else if (this.#state.status === "live" && silent > PING_MS) this.#send({ type: "ping" });
  }

  /** The network went away: nobody waits until the old line has noticed. */
  readonly #lost = (): void => {
    const old = this.#socket;
    this.#socket = null;
    old?.close();
    this.#later();
  };

  #later(): void {
    this.#set({ status: this.#state.told ? "away" : "connecting" });
    this.#tries += 1;
    clearTimeout(this.#opening);
    this.#opening = setTimeout(
      () => !this.#stopped && this.#open(),
      // a browser that knows of no network says when there is one again; tried late all the same,
      // since a desk on the same machine needs none
      navigator.onLine ? Math.min(300 * 2 ** this.#tries, 4_000) : NO_NETWORK_MS,
    );
  }

  #open(): void {
    clearTimeout(this.#opening);
    const scheme = location.protocol === "https:" ? "wss" : "ws";
    const socket = new WebSocket(`${scheme}://${location.host}${this.#path}`);
    this.#socket = socket;
    socket.onopen = () => {
      this.#heardAt = Date.now();
      socket.send(JSON.stringify({ type: "hello" }));
    };
    socket.onmessage = ({ data }) => {
      if (this.#socket === socket) this.#heard(JSON.parse(String(data)) as FromDesk | Told);
    };
    socket.onclose = ({ code }) => {
      if (this.#stopped || this.#socket !== socket) return;
      if (code === NOT_SIGNED_IN) location.assign("/sign-in");
      if (code === ENDED) {
        this.#waiting = [];
        this.#keep();
        this.#set({ status: "ended", told: null });
        return;
      }
      this.#later();
    };
  }

  #toldAll(told: Told): void {
    const back = this.#state.status !== "live";
    this.#tries = 0;
    this.#set({ status: "live", told });
    if (!back) return;
    // all again, in order: each counts once
    for (const one of this.#waiting) this.#send(one);
    // whose fingers are gone since holds nothing
    const gestures = this.#waiting.flatMap((one) => (one.type === "do" ? [one.gesture] : []));
    if (this.#holds) for (const one of new Set(gestures)) this.letGo(one);
  }

  #heard(heard: FromDesk | Told): void {
    this.#heardAt = Date.now();
    if (heard.type === this.#whole) {
      this.#toldAll(heard as Told);
      return;
    }
    const message = heard as FromDesk;
    switch (message.type) {
      case "done":
        this.#answered(message.id);
        break;
      case "refused":
        // of moves nothing is kept back for later; calls go on
        if (message.code === "locked")
          this.#waiting = this.#waiting.filter((one) => one.type === "call");
        this.#answered(message.id, message.message);
        break;
      case "finger":
        this.#set({ finger: message });
        clearTimeout(this.#lifting);
        this.#lifting = setTimeout(() => this.#set({ finger: null }), FINGER_MS);
        break;
      case "called":
        this.#set({ called: message });
        this.#answered(message.id);
        break;
      default:
        break;
    }
  }

  #answered(id: string | null, says?: string): void {
    this.#waiting = this.#waiting.filter((one) => one.id !== id);
    this.#keep();
    if (says !== undefined) this.#set({ says });
  }

  #left(): Message<Ask>[] {
    try {
      return JSON.parse(localStorage.getItem(this.#key) ?? "[]") as Message<Ask>[];
    } catch {
      return [];
    }
  }

  #keep(): void {
    try {
      if (this.#waiting.length === 0) localStorage.removeItem(this.#key);
      else localStorage.setItem(this.#key, JSON.stringify(this.#waiting));
    } catch {
      // no room or no storage: then a reload loses what waits
    }
    this.#set({ waiting: this.#waiting.length });
  }

  #set(some: Partial<State<Told>>): void {
    this.#state = { ...this.#state, ...some };
    this.#changed(this.#state);
  }
}

/** A performer's phone, by its link. */
export class PhoneLink extends DeskLink<PhoneMixes, PhoneAsk> {
  constructor(link: string, changed: (state: State) => void) {
    super({ path: `/mine/${link}/live`, key: `mine/${link}`, whole: "mixes" }, changed);
  }
}
