/**
 * The websocket to one show. It reconnects by itself, asks for what came after its revision, and
 * sends every edit again that the server has not confirmed: each has an id, so it counts once.
 */
import { newId } from "./id";
import { notify, received, store } from "./show";
import type { Ask, CuesHere, CueWay, Found, FromScreen, Move, Preview, ToScreen } from "./types";
import { LeftBehind, type Unsent } from "./unsent";

const FIRST_RETRY_MS = 250;
const LAST_RETRY_MS = 2500;
/** So often it is asked whether a show that was removed is back. */
const GONE_RETRY_MS = 4000;
/** So long nothing is heard before the link asks whether anybody is there, and then it waits so long. */
const QUIET_MS = 3000;
const ANSWER_MS = 4000;
/** Close codes of the server's own: not signed in, no such show. */
const NOT_SIGNED_IN = 4401;
const NO_SUCH_SHOW = 4404;

type Watch = Extract<FromScreen, { type: "watch" }>;

interface Waiting {
  message: Extract<FromScreen, { type: "do" | "undo" | "redo" }>;
  quiet: boolean;
  settle: (kept: boolean) => void;
}

interface Question {
  message: Extract<FromScreen, { type: "try" }>;
  answer: (answer: Preview | string) => void;
  /** An edit follows by itself: it counts as waiting already. */
  before: boolean;
  /** How often it went out: one that was sent twice and is not answered is given up. */
  sent: number;
}

/** What was typed last in Find, and who waits for its answers. */
interface Wish {
  message: Extract<FromScreen, { type: "find" }>;
  answer: (found: Found | null) => void;
}

/** A question that ended two connections ends no third: it may be what ends them. */
const MOST_ASKED = 2;
const GIVEN_UP =
  "What that would do could not be found out: no answer came, twice. Nothing was changed.";

export class Link {
  readonly #url: string;
  /** Which page of its person this is, by whatever connection: its hands are its own. */
  readonly #page = newId();
  readonly #waiting = new Map<string, Waiting>();
  readonly #questions = new Map<string, Question>();
  #wish: Wish | null = null;
  readonly #gone: string[] = [];
  readonly #kept: Extract<ToScreen, { type: "done" }>[] = [];
  readonly #left: LeftBehind;
  #socket: WebSocket | null = null;
  #retryMs = FIRST_RETRY_MS;
  #retry: ReturnType<typeof setTimeout> | undefined;
  #heardAt = 0;
  #askedAt: number | null = null;
  #watch: Watch = { type: "watch", table: false, why: null, check: null, view: "" };

  constructor(showId: string) {
    const scheme = location.protocol === "https:" ? "wss" : "ws";
    this.#left = new LeftBehind(
      showId,
      this.#page,
      (ids) => this.#send({ type: "kept", ids }),
      (messages) => this.sendUnsent(messages),
    );
    this.#url = `${scheme}://${location.host}/live/${showId}`;
    this.#open();
    window.addEventListener("online", this.#now);
    window.addEventListener("beforeunload", this.#unloading);
    window.addEventListener("pagehide", () => this.#keep(true));
    setInterval(() => {
      this.#checkSilence();
      this.#left.look();
      this.#keep(false);
    }, 1000);
  }

  /** What is not answered yet outlives this page; an undo does not: it would take back another edit. */
  #keep(closing: boolean): void {
    const messages = [...this.#waiting.values()].flatMap(({ message }) =>
      message.type === "do" ? [message] : [],
    );
    this.#left.keep(messages, closing);
  }

  /** Send what a closed page had not; its hands are none any more. */
  sendUnsent(messages: readonly Unsent[]): void {
    store.setState({ unsent: [] });
    const words = messages.length === 1 ? "1 move" : `${messages.length} moves`;
    void Promise.all(
      messages.map((message) =>
        this.#submit(message, true).then((kept) => {
          this.letGo(message.gesture);
          return kept;
        }),
      ),
    ).then((kept) => {
      if (kept.some((one) => one)) notify(`${words} of a page that was closed: sent now`);
    });
  }

  #now = () => {
    if (store.getState().status === "lost") this.#open();
  };

  #unloading = (event: BeforeUnloadEvent) => {
    if (store.getState().waiting > 0) event.preventDefault();
  };

  #open(): void {
    clearTimeout(this.#retry);
    this.#socket?.close();
    const socket = new WebSocket(this.#url);
    this.#socket = socket;
    socket.onopen = () => {
      if (socket !== this.#socket) return;
      this.#retryMs = FIRST_RETRY_MS;
      this.#heardAt = Date.now();
      this.#askedAt = null;
      this.#send({ type: "hello", since: store.getState().revision, page: this.#page });
      this.#send(this.#watch);
      for (const { message } of this.#waiting.values()) this.#send(message);
      for (const question of [...this.#questions.values()]) this.#ask(question);
      if (this.#wish) this.#send(this.#wish.message);
      const { planning } = store.getState();
      if (planning) this.#send({ type: "plan_tracks", id: planning.id });
      if (store.getState().status !== "gone") store.setState({ status: "live", trouble: "" });
      this.#tellGone();
      this.#left.ask();
      this.#count();
    };
    socket.onmessage = (event) => {
      if (socket !== this.#socket) return;
      this.#heardAt = Date.now();
      this.#askedAt = null;
      if (store.getState().status === "gone") store.setState({ status: "live", trouble: "" });
      this.#take(JSON.parse(event.data as string) as ToScreen);
    };
    socket.onclose = (event) => {
      if (socket !== this.#socket) return;
      if (event.code === NOT_SIGNED_IN) location.assign("/sign-in");
      if (event.code === NO_SUCH_SHOW) {
        // removed; once somebody brings it back it is here again by itself
        store.setState({ status: "gone" });
        this.#retry = setTimeout(() => this.#open(), GONE_RETRY_MS);
        return;
      }
      this.#lost();
      this.#retry = setTimeout(() => this.#open(), this.#retryMs);
      this.#retryMs = Math.min(this.#retryMs * 1.6, LAST_RETRY_MS);
    };
  }

  /** A network can die without a word, also for a screen that only watches. */
  #checkSilence(): void {
    if (store.getState().status !== "live") return;
    const now = Date.now();
    if (this.#askedAt !== null) {
      if (now - this.#askedAt < ANSWER_MS) return;
      this.#lost();
      this.#open();
    } else if (now - this.#heardAt > QUIET_MS) {
      this.#askedAt = now;
      this.#send({ type: "ping" });
    }
  }

  #lost(): void {
    store.setState({ status: "lost" });
    this.#count();
  }

  /** What waits: edits, and previews when there is nobody to answer them. */
  #count(): void {
    const live = store.getState().status === "live";
    let waiting = this.#waiting.size;
    for (const question of this.#questions.values()) if (question.before || !live) waiting++;
    if (waiting !== store.getState().waiting) store.setState({ waiting });
  }

  #send(message: FromScreen): void {
    if (this.#socket?.readyState === WebSocket.OPEN) this.#socket.send(JSON.stringify(message));
  }

  #take(message: ToScreen): void {
    const { revision } = store.getState();
    if (message.type === "moved" && revision !== null && message.before > revision) {
      this.#send({ type: "hello", since: revision }); // something was missed on the way
      return;
    }
    received(message);
    if (message.type === "moved" || message.type === "snapshot") this.#seen();
    if (message.type === "done") {
      this.#kept.push(message);
      this.#seen();
    } else if (message.type === "refused") {
      if (message.id && this.#answered(message.id, message.message)) return;
      if (message.id && this.#wished(message.id, null)) return;
      const edit = message.id ? this.#waiting.get(message.id)?.message : undefined;
      const ask = edit?.type === "do" && edit.ask.action === "moves" ? edit.ask : undefined;
      if (message.id) this.#settled(message.id, false);
      const ways = message.ways ?? [];
      if (ways.length > 0)
        store.setState({ choice: { message: message.message, ways, by_hand: ask?.by_hand } });
      else notify(message.message, "refused");
    } else if (message.type === "preview") {
      this.#answered(message.id, message);
    } else if (message.type === "found") {
      this.#wished(message.id, message);
    } else if (message.type === "kept") {
      this.#left.judge(new Set(message.ids));
    }
  }

  #ask(question: Question): void {
    if (question.sent >= MOST_ASKED) {
      this.#answered(question.message.id, GIVEN_UP);
    } else if (this.#socket?.readyState === WebSocket.OPEN) {
      question.sent++;
      this.#send(question.message);
    }
  }

  #answered(id: string, answer: Preview | string): boolean {
    const question = this.#questions.get(id);
    this.#questions.delete(id);
    this.#count();
    question?.answer(answer);
    return question !== undefined;
  }

  /** Kept edits settle once this screen has what they changed: their values may come after. */
  #seen(): void {
    const { revision } = store.getState();
    for (const done of this.#kept.splice(0)) {
      if (revision === null || revision < done.revision) {
        this.#kept.push(done);
        continue;
      }
      const waiting = this.#settled(done.id, true);
      if (waiting && !waiting.quiet && done.says) notify(done.says);
    }
  }

  #settled(id: string, kept: boolean): Waiting | undefined {
    const waiting = this.#waiting.get(id);
    this.#waiting.delete(id);
    this.#count();
    waiting?.settle(kept);
    return waiting;
  }

  #submit(message: Waiting["message"], quiet: boolean): Promise<boolean> {
    return new Promise((settle) => {
      this.#waiting.set(message.id, { message, quiet, settle });
      this.#count();
      if (store.getState().status === "live") this.#send(message);
    });
  }

  /** Make an edit; resolves when it is kept (true) or refused (false), however long that takes. */
  do(
    ask: Ask,
    options: { gesture?: string; quiet?: boolean; seen?: number | null } = {},
  ): Promise<boolean> {
    const id = newId();
    const gesture = options.gesture ?? id;
    // what the hand saw when it began: it moves nobody who came on since
    const seen = options.seen === undefined ? store.getState().revision : options.seen;
    return this.#submit({ type: "do", id, gesture, ask, seen }, options.quiet ?? true);
  }

  /** One address is to hold this value. */
  put(address: string, value: Move["value"], options?: { quiet?: boolean }): Promise<boolean> {
    return this.do({ action: "moves", moves: [{ address, value }] }, options);
  }

  /** One address is to hold what was typed, as the core reads it. */
  type(address: string, typed: string, options?: { quiet?: boolean }): Promise<boolean> {
    return this.do({ action: "moves", moves: [{ address, typed }] }, options);
  }

  undo(): Promise<boolean> {
    return this.#submit({ type: "undo", id: newId() }, false);
  }

  redo(): Promise<boolean> {
    return this.#submit({ type: "redo", id: newId() }, false);
  }

  /**
   * Ask what an edit would do; a string says why it would be refused. While the server is away it
   * waits, and is asked again when it is back. `before`: an edit follows, so it counts as one that
   * waits. Let go of by `signal`, it is never answered.
   */
  try(
    ask: Ask,
    options: { before?: boolean; signal?: AbortSignal; most?: number } = {},
  ): Promise<Preview | string> {
    const id = newId();
    return new Promise((answer) => {
      const message = { type: "try", id, ask, most: options.most } as const;
      const question = { message, answer, before: options.before ?? false, sent: 0 };
      this.#questions.set(id, question);
      options.signal?.addEventListener("abort", () => {
        this.#questions.delete(id);
        this.#count();
      });
      this.#count();
      if (store.getState().status === "live") this.#ask(question);
    });
  }

  /** Let cues from outside do something, or only be told with what they would do. */
  armCues(mode: CuesHere["mode"]): void {
    this.#send({ type: "arm_cues", mode });
  }

  /** Switch a way of cues, with where it listens and who may send. */
  setCueWay(way: Omit<CueWay, "trouble" | "listens" | "port"> & { port: string }): void {
    this.#send({ type: "set_cue_way", id: newId(), ...way });
  }

  setCueOnce(typed: string): void {
    this.#send({ type: "set_cue_once", id: newId(), typed });
  }

  /** Undo what a cue did, by the row that tells of it. */
  undoCue(told: number): void {
    this.#send({ type: "undo_cue", id: newId(), told });
  }

  /** Have the stand-in cue machine play, send one message, stop, or err. */
  cueMachine(what: Omit<Extract<FromScreen, { type: "machine" }>, "type" | "id">): void {
    this.#send({ type: "machine", id: newId(), ...what });
  }

  /** Have the stand-in recorder write its tracks, play them back, or stop. */
  recorder(what: "record" | "play" | "stop"): void {
    this.#send({ type: "recorder", do: what });
  }

  /** Look for the best track plan: the store tells how far it is, and what was found. */
  planTracks(): void {
    const id = newId();
    store.setState({ plan: null, planning: { type: "planning", id, what: "", at: 0, of: 0 } });
    this.#send({ type: "plan_tracks", id });
  }

  /**
   * What answers these words. null: nothing does by now, since something else was typed behind them.
   * While the server is away it waits.
   */
  find(text: string, view: string): Promise<Found | null> {
    this.#wish?.answer(null);
    return new Promise((answer) => {
      this.#wish = { message: { type: "find", id: newId(), text, view }, answer };
      this.#send(this.#wish.message);
    });
  }

  #wished(id: string, found: Found | null): boolean {
    const wish = this.#wish;
    if (wish?.message.id !== id) return false;
    this.#wish = null;
    wish.answer(found);
    return true;
  }

  /** What this screen draws from now on, besides values; what is not named stays as it was. */
  watch(wanted: Partial<Omit<Watch, "type">>): void {
    this.#watch = { ...this.#watch, ...wanted };
    this.#send(this.#watch);
  }

  /** A hand lets go; told behind all that it moved, also after the network was away. */
  letGo(gesture: string): void {
    this.#gone.push(gesture);
    if (store.getState().status === "live") this.#tellGone();
  }

  #tellGone(): void {
    for (const gesture of this.#gone.splice(0)) this.#send({ type: "let_go", gesture });
  }

  /** Ask for the curves of a strip as they would be: while a hand drags, ahead of the edit. */
  draw(strip: string, moves: Move[]): void {
    this.#send({ type: "draw", strip, moves });
  }

  /** A performer's call was seen; no part of the show, so nothing to undo. */
  seenCall(call: string): void {
    this.#send({ type: "seen_call", call });
  }

  /** Ask the stage to feed a line; no part of the show, so nothing to undo. */
  feed(line: number, signal: "tone" | "noise" | "nothing"): void {
    this.#send({ type: "feed", line, signal });
  }

  /** Let the members of a group that shares gain talk on the stand-in stage, or be silent. */
  talk(group: string, on: boolean): void {
    this.#send({ type: "talk", group, on });
  }

  /** Exchange two cables on the stand-in stage. */
  swapCables(one: number, other: number): void {
    this.#send({ type: "swap_cables", lines: [one, other] });
  }

  /** Have every cable of the stand-in stage plugged as the show has it. */
  straightCables(): void {
    this.#send({ type: "straight_cables" });
  }
}

/**
 * One movement of a hand on one control: only the newest place is sent, one message at a time. Its
 * end is told once all of it is kept: until then nothing else moves what it holds.
 */
export class Gesture {
  readonly #link: Link;
  readonly #id = newId();
  #next: Ask | null = null;
  #sending = false;
  #holds = false;
  #ended = false;
  readonly #seen = store.getState().revision;

  constructor(link: Link) {
    this.#link = link;
  }

  move(ask: Ask): void {
    this.#next = ask;
    if (ask.action === "moves" && ask.by_hand?.stays) this.#holds = true;
    if (!this.#sending) void this.#flow();
  }

  end(): void {
    if (this.#ended) return;
    this.#ended = true;
    if (!this.#sending) this.#letGo();
  }

  #letGo(): void {
    if (this.#holds) this.#link.letGo(this.#id);
  }

  async #flow(): Promise<void> {
    this.#sending = true;
    while (this.#next) {
      const ask = this.#next;
      this.#next = null;
      await this.#link.do(ask, { gesture: this.#id, seen: this.#seen });
    }
    this.#sending = false;
    if (this.#ended) this.#letGo();
  }
}
