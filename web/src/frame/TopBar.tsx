import { DropdownMenu } from "radix-ui";
import { type ReactNode, useRef, useState } from "react";
import { useLocation } from "wouter";
import { showFileAddress, signOut } from "../data/http";
import { useLink, useShow, useText } from "../data/use";
import { Button } from "../ui/Button";
import { usePhone } from "../ui/media";
import { HardMutePill } from "./HardMutePill";
import { NewShowDialog } from "./NewShowDialog";
import { OpenShowFile } from "./OpenShowFile";
import { PromisePill } from "./PromisePill";
import { SoloPill } from "./SoloPill";
import { GROUPS, type Part, useFindings, useWork, VIEW_WORD, viewOf } from "./work";

/** Shows in the menu; all of them are in the view of shows. */
const SHOWN = 8;

const STATUS = {
  connecting: ["bg-sun", "connecting"],
  live: ["bg-sea", "saved"],
  lost: ["bg-coral", "offline"],
  gone: ["bg-coral", "gone"],
} as const;

interface Props {
  onFind: () => void;
  onKeys: () => void;
}

/** On top: the show, whether what is done here is kept, who else is here, undo and find. */
export function TopBar({ onFind, onKeys }: Props) {
  const link = useLink();
  const phone = usePhone();
  const fallback = useShow((state) => state.desk?.show.name ?? "");
  const name = useText("show/name") || fallback;
  const deskName = useShow((state) => state.desk?.name ?? "");
  return (
    <header className="col-span-full flex items-center gap-2.5 phone:gap-1.5 h-[52px] px-4 phone:px-2 border-b border-line bg-floor">
      {phone ? (
        <WorkMenu />
      ) : (
        <>
          <img src="/static/mark.svg" alt="" className="w-7" />
          <span className="font-title font-bold text-lg narrow:hidden mr-8">Ombrel</span>
        </>
      )}
      <Pill className="flex-initial basis-auto">
        <strong className="truncate max-w-64" title={name}>
          {name}
        </strong>
      </Pill>
      <Pill className="narrow:hidden">
        <span className="text-soft">Desk</span>{" "}
        <strong className="whitespace-nowrap">{deskName}</strong>
      </Pill>
      <Kept short={phone} />
      {!phone && <Others />}
      <PromisePill />
      <HardMutePill />
      <SoloPill />
      <span className="flex-1" />
      <Button
        small
        onClick={() => void link.undo()}
        aria-keyshortcuts="Control+Z"
        title="Undo (Ctrl+Z)"
        aria-label="Undo"
      >
        <Arrow /> <span className="phone:hidden">Undo</span>
      </Button>
      {!phone && (
        <Button
          small
          onClick={() => void link.redo()}
          aria-keyshortcuts="Control+Shift+Z"
          title="Redo (Ctrl+Shift+Z)"
          aria-label="Redo"
        >
          <Arrow flipped /> <span className="narrow:hidden">Redo</span>
        </Button>
      )}
      <Button small onClick={onFind} title="Find (/)" aria-keyshortcuts="/">
        Find{" "}
        <kbd className="font-sans font-bold border border-edge rounded px-1 text-[11px] narrow:hidden">
          /
        </kbd>
      </Button>
      <Menu onKeys={onKeys} />
    </header>
  );
}

/** On a phone the work list is a menu; which view one is in, its heading says. */
function WorkMenu() {
  const [path, navigate] = useLocation();
  const work = useWork();
  const { settle } = useFindings();
  const parts: Part[] = [
    ...GROUPS.flatMap((group) => work[group]),
    { to: "/findings", word: VIEW_WORD.findings!, count: settle ? `${settle} to settle` : "" },
  ];
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger asChild>
        <Button
          small
          aria-label={`The work: ${VIEW_WORD[viewOf(path)] ?? ""}`}
          title="The work"
          className="!h-11 min-w-11 shrink-0"
        >
          <span aria-hidden>☰</span>
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="start" sideOffset={6} className={MENU}>
          {parts.map((part) => (
            <DropdownMenu.Item
              key={part.to}
              className={`${ITEM} justify-between gap-6 min-h-11`}
              onSelect={() => navigate(part.to)}
            >
              <span className={part.to === `/${viewOf(path)}` ? "font-semibold text-sun-text" : ""}>
                {part.word}
              </span>
              <span className="text-faint">{part.count}</span>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** Who else has the show open, and where. */
function Others() {
  const others = useShow((state) => state.others);
  const unnamed = useShow((state) => state.othersMore);
  if (others.length === 0) return null;
  const said = others.map((other) => `${other.name} in ${VIEW_WORD[other.view] ?? "the show"}`);
  const more = said.length - 2 + unnamed;
  return (
    <span className="min-w-0" role="status" title={said.join("\n")} data-testid="others">
      <Pill>
        <span className="truncate">
          <span className="sr-only">Also here: </span>
          {said.slice(0, 2).join(", ")}
          {more > 0 && ` and ${more} more`}
        </span>
      </Pill>
    </span>
  );
}

function Arrow({ flipped }: { flipped?: boolean }) {
  return (
    <svg viewBox="0 0 16 16" className={`w-3.5 ${flipped ? "-scale-x-100" : ""}`} aria-hidden>
      <path
        d="M6 3 2.500 6.500 6 10M3 6.500h6a4 4 0 0 1 0 7H7"
        fill="none"
        stroke="currentColor"
        strokeWidth="1.6"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    </svg>
  );
}

function Pill({ children, className = "" }: { children: ReactNode; className?: string }) {
  return (
    <span
      className={`inline-flex items-center gap-2 h-8 px-3 phone:px-2 rounded-full border border-line bg-card min-w-0 ${className}`}
    >
      {children}
    </span>
  );
}

/** Whether the server has what was done here. */
function Kept({ short }: { short: boolean }) {
  // a link without its show is none yet
  const status = useShow((state) =>
    state.status === "live" && state.revision === null ? "connecting" : state.status,
  );
  const waiting = useShow((state) => state.waiting);
  const trouble = useShow((state) => state.trouble);
  const [colour, word] = trouble ? (["bg-coral", "store away"] as const) : STATUS[status];
  const text = waiting > 0 ? `${word === "saved" ? "saving" : word}, ${waiting} waiting` : word;
  return (
    <span
      role="status"
      data-status={trouble ? "trouble" : status}
      data-waiting={waiting}
      title={trouble || undefined}
    >
      <Pill>
        <span className={`w-2 h-2 rounded-full shrink-0 ${colour}`} aria-hidden />
        <span className={`whitespace-nowrap ${short && text === "saved" ? "sr-only" : ""}`}>
          {text}
        </span>
      </Pill>
    </span>
  );
}

const ITEM =
  "px-3 min-h-9 flex items-center rounded-lg outline-none cursor-pointer data-[highlighted]:bg-raise";
const MENU =
  "min-w-52 max-w-[92vw] max-h-[var(--radix-dropdown-menu-content-available-height)] scrolls rounded-xl border border-line bg-floor p-1.5 shadow-2xl z-50";

function Menu({ onKeys }: { onKeys: () => void }) {
  const link = useLink();
  const [path, navigate] = useLocation();
  const [making, setMaking] = useState(false);
  const opener = useRef<HTMLInputElement>(null);
  const me = useShow((state) => state.me);
  const current = useShow((state) => state.desk?.show.id);
  const toggleTheme = () => {
    const root = document.documentElement;
    root.dataset.theme = root.dataset.theme === "daylight" ? "dusk" : "daylight";
    localStorage.setItem("theme", root.dataset.theme);
  };
  return (
    <>
      <NewShowDialog open={making} onOpenChange={setMaking} />
      <OpenShowFile ref={opener} />
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger asChild>
          <Button small aria-label={`Menu, ${me?.name ?? ""}`}>
            <span className="narrow:hidden">{me?.name}</span> <span aria-hidden>▾</span>
          </Button>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content align="end" sideOffset={6} className={MENU}>
            {me?.shows.slice(0, SHOWN).map((show) => (
              <DropdownMenu.Item
                key={show.id}
                className={ITEM}
                onSelect={() => location.assign(`/hears?show=${show.id}`)}
              >
                <span aria-hidden>{show.id === current ? "● " : "○ "}</span>
                <span className="truncate max-w-72">{show.name}</span>
              </DropdownMenu.Item>
            ))}
            <DropdownMenu.Item className={ITEM} onSelect={() => navigate("/shows")}>
              All shows…
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => setMaking(true)}>
              New show…
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => opener.current?.click()}>
              Open a show file…
            </DropdownMenu.Item>
            {current && (
              <DropdownMenu.Item
                className={ITEM}
                onSelect={() => location.assign(showFileAddress(current))}
              >
                Save this show as a file
              </DropdownMenu.Item>
            )}
            <DropdownMenu.Separator className="h-px bg-line my-1.5" />
            <DropdownMenu.Item className={ITEM} onSelect={() => void link.redo()}>
              Redo
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => navigate("/history")}>
              History
            </DropdownMenu.Item>
            <DropdownMenu.Item
              className={ITEM}
              onSelect={() => navigate(`/guide?view=${viewOf(path)}`)}
            >
              Guide
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={onKeys}>
              Keys
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={toggleTheme}>
              Dusk or daylight
            </DropdownMenu.Item>
            <DropdownMenu.Item className={ITEM} onSelect={() => void signOut()}>
              Sign out
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </>
  );
}
