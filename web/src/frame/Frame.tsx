import { type ReactNode, useEffect, useLayoutEffect, useState } from "react";
import { useLocation } from "wouter";
import { listenForAlone } from "../data/hand";
import { useHabits } from "../data/settings";
import { dismiss, type Notice, store } from "../data/show";
import { followTo } from "../data/subject";
import { select, useLink, useShow } from "../data/use";
import { Guarded } from "../ui/Guarded";
import { isTyping, useKeys } from "../ui/keys";
import { usePhone, useWide } from "../ui/media";
import { WhyEdge } from "../views/why/WhyEdge";
import { WhyLine } from "../views/why/WhyLine";
import { WhyPanel } from "../views/why/WhyPanel";
import { Choosing } from "./Choosing";
import { FirstSteps } from "./FirstSteps";
import { Find } from "./find/Find";
import { hasSteps } from "./firstSteps";
import { KeysDialog } from "./KeysDialog";
import { actOf } from "./keys";
import { seen, VIEW_WORD, viewOf } from "./places";
import { Rail } from "./Rail";
import { TopBar } from "./TopBar";
import { UnsentDialog } from "./UnsentDialog";
import { foldWhy, hasWhy, useWhyFolded } from "./why";

/** Whether undo is the field's own matter: something typed there that is not settled yet. */
function holdsDraft(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement)) return false;
  if (target.type === "checkbox" || target.dataset.settled === "true") return false;
  return target.value !== "";
}

/** The frame around every view, and the keys that work everywhere. */
export function Frame({ children }: { children: ReactNode }) {
  const link = useLink();
  const [finding, setFinding] = useState(false);
  const [keys, setKeys] = useState(false);
  const [path] = useLocation();
  const selected = useShow((state) => state.selected);
  const started = useShow((state) => state.revision !== null);
  const phone = usePhone();
  const view = viewOf(path);
  const wide = useWide();
  const folded = useWhyFolded(view);
  const left = useHabits((now) => now.why_side === "left");
  const gone = useShow((state) => state.status === "gone");

  useEffect(() => {
    if (started && !store.getState().selected) select(null);
  }, [started]);

  useEffect(() => {
    link.watch({
      table: /^\/(hears|mixes|banks)/.test(path),
      why: selected,
      view: viewOf(path),
    });
  }, [link, path, selected]);

  useKeys((event) => {
    const act = actOf("everywhere", event);
    const sign = !event.ctrlKey && !event.metaKey; // it may be a letter of what is typed
    if (!act || (sign && isTyping(event))) return;
    if ((act === "undo" || act === "redo") && holdsDraft(event.target)) return;
    event.preventDefault();
    if (act === "undo") void link.undo();
    if (act === "redo") void link.redo();
    if (act === "find") setFinding(true);
    if (act === "keys") setKeys(true);
    if (act === "why" && hasWhy(view)) foldWhy(view, !folded);
  });

  useLayoutEffect(() => listenForAlone(isTyping), []);

  const name = useShow((state) =>
    String(state.values.get("show/name") ?? state.desk?.show.name ?? ""),
  );
  useEffect(() => seen(path), [path]);
  useEffect(() => {
    document.title = `${VIEW_WORD[view] ?? "Ombrel"} · ${name} · Ombrel`;
  }, [view, name]);
  if (gone) return <Gone />;
  const why = wide && hasWhy(view) && (
    <div
      className={`min-h-0 flex ${left ? "order-1" : "order-3"} ${folded ? "" : "w-[300px] min-[1500px]:w-[340px]"}`}
    >
      <Guarded what="Why">
        {folded ? (
          <WhyEdge onUnfold={() => foldWhy(view, false)} />
        ) : (
          <WhyPanel onFold={() => foldWhy(view, true)} />
        )}
      </Guarded>
    </div>
  );
  return (
    <div
      className={`frame h-full grid grid-rows-[auto_minmax(0,1fr)] ${phone ? "grid-cols-1" : "grid-cols-[auto_minmax(0,1fr)]"}`}
    >
      <a className="skip screen-only" href="#work">
        Skip to the work
      </a>
      <TopBar onFind={() => setFinding(true)} onKeys={() => setKeys(true)} />
      {!phone && <Rail onKeys={() => setKeys(true)} />}
      <div className="min-w-0 min-h-0 flex">
        <main
          id="work"
          tabIndex={-1}
          onFocus={(event) => followTo(event.target)}
          onPointerDownCapture={(event) => followTo(event.target)}
          className="order-2 flex-1 min-w-0 min-h-0 flex flex-col bg-ink outline-none"
        >
          <div className="flex-1 min-h-0 flex flex-col short:overflow-y-auto px-4 phone:px-2.5 pb-3 phone:pb-1.5">
            {hasSteps(view) && (
              <Guarded what="First steps">
                <FirstSteps />
              </Guarded>
            )}
            <Guarded key={path} what="This view">
              {children}
            </Guarded>
          </div>
          {!wide && hasWhy(view) && <WhyLine />}
        </main>
        {why}
      </div>
      <Find open={finding} onOpenChange={setFinding} onKeys={() => setKeys(true)} view={view} />
      <KeysDialog open={keys} onOpenChange={setKeys} view={view} />
      <Choosing />
      <UnsentDialog />
      <Notices />
    </div>
  );
}

/** Somebody removed the show; it can be brought back where all shows are. */
function Gone() {
  return (
    <p className="p-8 text-coral" role="alert">
      This show was removed.{" "}
      <a className="in-text underline text-paper" href="/shows">
        All shows
      </a>{" "}
      has it, to be brought back; it is here again by itself then.
    </p>
  );
}

function Notices() {
  const notices = useShow((state) => state.notices);
  return (
    <div
      // what is below a notice takes the click: it may cover the very field that one goes for
      className="pointer-events-none fixed bottom-4 phone:bottom-14 left-1/2 -translate-x-1/2 w-max max-w-[94vw] flex flex-col gap-2 items-center z-50"
      role="status"
      aria-label="Notices"
    >
      {notices.map((notice) => (
        <NoticeKey key={notice.id} notice={notice} />
      ))}
    </div>
  );
}

const SEEN_MS = { said: 3500, refused: 9000 };

/** A notice that goes by itself when it was seen; a refusal, which stays longer, also by a press. */
function NoticeKey({ notice: { id, text, tone } }: { notice: Notice }) {
  useEffect(() => {
    const timer = setTimeout(() => dismiss(id), SEEN_MS[tone]);
    return () => clearTimeout(timer);
  }, [id, tone]);
  return (
    <div
      data-notice={tone}
      className={`max-w-[min(640px,94vw)] flex items-start gap-2 text-left rounded-xl border px-4 py-2.5 shadow-xl bg-raise text-paper ${
        tone === "refused" ? "border-coral" : "border-edge"
      }`}
    >
      <span>
        {tone === "refused" && <strong className="text-coral mr-1.5">Not done.</strong>}
        {text}
      </span>
      {tone === "refused" && (
        <button
          type="button"
          aria-label="Take the notice away"
          onClick={() => dismiss(id)}
          className="pointer-events-auto -my-1 w-8 h-8 coarse:w-11 coarse:h-11 shrink-0 rounded-lg cursor-pointer text-soft hover:bg-card"
        >
          ✕
        </button>
      )}
    </div>
  );
}
