import { DropdownMenu } from "radix-ui";
import { useRef, useState } from "react";
import { openShowFile, showFileAddress, signOut } from "../data/http";
import { notify } from "../data/show";
import { useLink, useShow, useText } from "../data/use";
import { Button } from "../ui/Button";
import { NewShowDialog } from "./NewShowDialog";

const STATUS = {
  connecting: ["bg-sun", "connecting"],
  live: ["bg-sea", "saved"],
  lost: ["bg-coral", "offline"],
  gone: ["bg-coral", "gone"],
} as const;

/** On top: the show, whether what is done here is kept, undo and find. */
export function TopBar({ onFind }: { onFind: () => void }) {
  const link = useLink();
  const name = useText("show/name");
  const fallback = useShow((state) => state.desk?.show.name ?? "");
  const deskName = useShow((state) => state.desk?.name ?? "");
  return (
    <header className="col-span-3 flex items-center gap-2.5 px-4 border-b border-line bg-floor">
      <img src="/static/mark.svg" alt="" className="w-7" />
      <span className="font-title font-bold text-lg mr-8">Ombrel</span>
      <Pill>
        <strong className="truncate max-w-64">{name || fallback}</strong>
      </Pill>
      <Pill>
        <span className="text-soft">Desk</span> <strong>{deskName}</strong>
      </Pill>
      <Kept />
      <span className="flex-1" />
      <Button small onClick={() => void link.undo()} aria-keyshortcuts="Control+Z" title="Undo (Ctrl+Z)">
        <Arrow /> Undo
      </Button>
      <Button small onClick={() => void link.redo()} aria-keyshortcuts="Control+Shift+Z" title="Redo (Ctrl+Shift+Z)">
        <Arrow flipped /> Redo
      </Button>
      <Button small onClick={onFind} title="Find (/)">
        Find <kbd className="font-sans font-bold border border-edge rounded px-1 text-[11px]">/</kbd>
      </Button>
      <Menu />
    </header>
  );
}

function Arrow({ flipped }: { flipped?: boolean }) {
  return (
    <svg viewBox="0 0 16 16" className={`w-3.5 ${flipped ? "-scale-x-100" : ""}`} aria-hidden>
      <path d="M6 3 2.500 6.500 6 10M3 6.500h6a4 4 0 0 1 0 7H7" fill="none" stroke="currentColor" strokeWidth="1.6" strokeLinecap="round" strokeLinejoin="round" />
    </svg>
  );
}

function Pill({ children }: { children: React.ReactNode }) {
  return (
    <span className="inline-flex items-center gap-2 h-8 px-3 rounded-full border border-line bg-card min-w-0">
      {children}
    </span>
  );
}

/** Whether the server has what was done here. */
function Kept() {
  const status = useShow((state) => state.status);
  const waiting = useShow((state) => state.waiting);
  const trouble = useShow((state) => state.trouble);
  const [colour, word] = trouble ? (["bg-coral", "store away"] as const) : STATUS[status];
  const text = waiting > 0 ? `${word === "saved" ? "saving" : word}, ${waiting} waiting` : word;
  return (
    <span role="status" data-status={trouble ? "trouble" : status} data-waiting={waiting} title={trouble || undefined}>
      <Pill>
        <span className={`w-2 h-2 rounded-full ${colour}`} aria-hidden /> {text}
      </Pill>
    </span>
  );
}

function Menu() {
  const [making, setMaking] = useState(false);
  const opener = useRef<HTMLInputElement>(null);
  const me = useShow((state) => state.me);
  const current = useShow((state) => state.desk?.show.id);
  const item =
    "px-3 h-9 flex items-center rounded-lg outline-none cursor-pointer data-[highlighted]:bg-raise";
  const toggleTheme = () => {
    const root = document.documentElement;
    root.dataset.theme = root.dataset.theme === "daylight" ? "dusk" : "daylight";
    localStorage.setItem("theme", root.dataset.theme);
  };
  return (
    <>
    <NewShowDialog open={making} onOpenChange={setMaking} />
    <input
      ref={opener}
      type="file"
      aria-label="Show file"
      accept=".json"
      className="sr-only"
      tabIndex={-1}
      onChange={(event) => {
        const file = event.currentTarget.files?.[0];
        event.currentTarget.value = "";
        if (!file) return;
        openShowFile(file).then(
          ({ id }) => location.assign(`/hears?show=${id}`),
          (error: Error) => notify(error.message, "refused"),
        );
      }}
    />
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button small aria-label="Menu">
          {me?.name} <span aria-hidden>▾</span>
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" sideOffset={6} className="min-w-52 rounded-xl border border-line bg-floor p-1.5 shadow-2xl z-50">
          {me?.shows.map((show) => (
            <DropdownMenu.Item key={show.id} className={item} onSelect={() => location.assign(`/hears?show=${show.id}`)}>
              {show.id === current ? "● " : "○ "}
              {show.name}
            </DropdownMenu.Item>
          ))}
          <DropdownMenu.Item className={item} onSelect={() => setMaking(true)}>
            New show…
          </DropdownMenu.Item>
          <DropdownMenu.Item className={item} onSelect={() => opener.current?.click()}>
            Open a show file…
          </DropdownMenu.Item>
          {current && (
            <DropdownMenu.Item className={item} onSelect={() => location.assign(showFileAddress(current))}>
              Save this show as a file
            </DropdownMenu.Item>
          )}
          <DropdownMenu.Separator className="h-px bg-line my-1.5" />
          <DropdownMenu.Item className={item} onSelect={toggleTheme}>
            Dusk or daylight
          </DropdownMenu.Item>
          <DropdownMenu.Item className={item} onSelect={() => void signOut()}>
            Sign out
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
    </>
  );
}
