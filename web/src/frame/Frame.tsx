import { type ReactNode, useEffect, useLayoutEffect, useState } from "react";
import { useLocation } from "wouter";
import { listenForAlone } from "../data/hand";
import { useHabits } from "../data/settings";
import { store } from "../data/show";
import { followTo } from "../data/subject";
import { select, useLink, useShow } from "../data/use";
import { Guarded } from "../ui/Guarded";
import { isTyping, useKeys } from "../ui/keys";
import { usePhone, useWide } from "../ui/media";
import { Notices } from "../ui/Notices";
import { WhyEdge } from "../views/why/WhyEdge";
import { WhyLine } from "../views/why/WhyLine";
import { WhyPanel } from "../views/why/WhyPanel";
import { Calls } from "./Calls";
import { Choosing } from "./Choosing";
import { tellWhatIsCutOff } from "./cutOff";
import { FirstSteps } from "./FirstSteps";
import { Find } from "./find/Find";
import { hasSteps } from "./firstSteps";
import { KeysDialog } from "./KeysDialog";
import { actOf } from "./keys";
import { NoticesDialog } from "./NoticesDialog";
import { PlaybackLine } from "./PlaybackLine";
import { seen, VIEW_WORD, viewOf } from "./places";
import { QuietDialog } from "./QuietDialog";
import { Rail } from "./Rail";
import { RolePill } from "./RolePill";
import { TopBar } from "./TopBar";
import { UnsentDialog } from "./UnsentDialog";
import { useControl } from "./useControl";
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
  const [quiet, setQuiet] = useState(false);
  const [keys, setKeys] = useState(false);
  const [told, setTold] = useState(false);
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
    if (act === "quiet") setQuiet(true);
    if (act === "keys") setKeys(true);
    if (act === "why" && hasWhy(view)) foldWhy(view, !folded);
  });

  useControl();
  useEffect(tellWhatIsCutOff, []);
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
      <TopBar
        onFind={() => setFinding(true)}
        onQuiet={() => setQuiet(true)}
        onKeys={() => setKeys(true)}
        onNotices={() => setTold(true)}
      />
      {!phone && <Rail onKeys={() => setKeys(true)} onNotices={() => setTold(true)} />}
      <div className="min-w-0 min-h-0 flex">
        <main
          id="work"
          tabIndex={-1}
          onFocus={(event) => followTo(event.target)}
          onPointerDownCapture={(event) => followTo(event.target)}
          className="order-2 flex-1 min-w-0 min-h-0 flex flex-col bg-ink outline-none"
        >
          {phone && <RolePill line />}
          <PlaybackLine />
          <div className="flex-1 min-h-0 flex flex-col short:overflow-y-auto px-4 phone:px-2.5 pb-3 phone:pb-1.5">
            <Guarded what="Calls">
              <Calls />
            </Guarded>
            {hasSteps(view) && (
              <Guarded what="First steps">
                <FirstSteps />
              </Guarded>
            )}
            <Guarded key={path} what="This view">
              {children}
            </Guarded>
          </div>
          {!wide && <Below why={hasWhy(view)} onNotices={() => setTold(true)} />}
        </main>
        {why}
      </div>
      <Find
        open={finding}
        onOpenChange={setFinding}
        onKeys={() => setKeys(true)}
        onNotices={() => setTold(true)}
        view={view}
      />
      <QuietDialog open={quiet} onOpenChange={setQuiet} />
      <KeysDialog open={keys} onOpenChange={setKeys} view={view} />
      <Choosing />
      <UnsentDialog />
      <NoticesDialog open={told} onOpenChange={setTold} />
    </div>
  );
}

/** Below the work where there is no room beside it: a notice while there is one, else Why. */
function Below({ why, onNotices }: { why: boolean; onNotices: () => void }) {
  const some = useShow((state) => state.notices.length > 0);
  if (!some) return why ? <WhyLine /> : null;
  return (
    <div className="shrink-0 border-t border-line bg-floor px-2 py-1">
      <Notices onAll={onNotices} />
    </div>
  );
}

/** Somebody removed the show; it can be brought back where all shows are. */
function Gone() {
  return (
    <p className="p-8 text-coral" role="alert">
      This show was removed, or is not shared with you any more.{" "}
      <a className="in-text underline text-paper" href="/shows">
        All shows
      </a>{" "}
      has what is yours, and what can be brought back; it is here again by itself then.
    </p>
  );
}
