import { type ReactNode, useEffect, useState } from "react";
import { useLocation } from "wouter";
import { dismiss, store } from "../data/show";
import { select, useLink, useShow } from "../data/use";
import { WhyPanel } from "../views/why/WhyPanel";
import { Choosing } from "./Choosing";
import { Find } from "./Find";
import { SideBar } from "./SideBar";
import { TopBar } from "./TopBar";

function isTyping(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName);
}

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
  const [path] = useLocation();
  const selected = useShow((state) => state.selected);
  const started = useShow((state) => state.revision !== null);
  const gone = useShow((state) => state.status === "gone");

  useEffect(() => {
    if (started && !store.getState().selected) select(null);
  }, [started]);

  useEffect(() => {
    link.watch({ table: path.startsWith("/hears") || path.startsWith("/mixes"), why: selected });
  }, [link, path, selected]);

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const command = event.ctrlKey || event.metaKey;
      const key = event.key.toLowerCase();
      if (command && (key === "z" || key === "y") && !holdsDraft(event.target)) {
        event.preventDefault();
        void (key === "y" || event.shiftKey ? link.redo() : link.undo());
      } else if ((event.key === "/" && !isTyping(event.target)) || (command && key === "k")) {
        event.preventDefault();
        setFinding(true);
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [link]);

  // Beside the stage, on a phone, a page of its own: no room for a frame, and no need of one.
  const narrow = useNarrow();
  if (narrow && path.startsWith("/check")) {
    return (
      <main className="h-full flex flex-col bg-ink px-3 pb-3">
        {children}
        <Notices />
      </main>
    );
  }
  if (gone) return <p className="p-8 text-coral" role="alert">This show is no longer there.</p>;
  return (
    <div className="frame h-full grid grid-cols-[160px_minmax(0,1fr)_268px] grid-rows-[52px_minmax(0,1fr)]">
      <TopBar onFind={() => setFinding(true)} />
      <SideBar />
      <main className="min-w-0 min-h-0 flex flex-col px-4 pb-3 bg-ink">{children}</main>
      <WhyPanel />
      <Find open={finding} onOpenChange={setFinding} />
      <Choosing />
      <Notices />
    </div>
  );
}

const NARROW = "(max-width: 720px)";

function useNarrow(): boolean {
  const [narrow, setNarrow] = useState(() => matchMedia(NARROW).matches);
  useEffect(() => {
    const query = matchMedia(NARROW);
    const follow = () => setNarrow(query.matches);
    query.addEventListener("change", follow);
    return () => query.removeEventListener("change", follow);
  }, []);
  return narrow;
}

function Notices() {
  const notices = useShow((state) => state.notices);
  return (
    <div className="fixed bottom-4 left-1/2 -translate-x-1/2 flex flex-col gap-2 items-center z-50" role="status">
      {notices.map((notice) => (
        <button
          key={notice.id}
          type="button"
          onClick={() => dismiss(notice.id)}
          className={`max-w-[640px] text-left rounded-xl border px-4 py-2.5 shadow-xl bg-raise cursor-pointer ${
            notice.tone === "refused" ? "border-coral text-paper" : "border-edge text-paper"
          }`}
        >
          {notice.tone === "refused" && <strong className="text-coral mr-1.5">Not done.</strong>}
          {notice.text}
        </button>
      ))}
    </div>
  );
}
