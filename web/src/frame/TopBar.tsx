import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";
import { useLocation } from "wouter";
import { useLink } from "../data/use";
import { Button } from "../ui/Button";
import { usePhone, useWide } from "../ui/media";
import { Notices } from "../ui/Notices";
import { Toolbar } from "../ui/Toolbar";
import { BarKey } from "./BarKey";
import { Glyph } from "./Glyph";
import { ITEM, MENU, RULE } from "./menu";
import { NowNext } from "./NowNext";
import { PersonItems } from "./PersonMenu";
import { PLACES, type Place, type Tab, tabsOf, useCounts, VIEW_WORD, viewOf } from "./places";
import { RolePill } from "./RolePill";
import { QuietKey, SealPill } from "./SealPill";
import { ShowMenu } from "./ShowMenu";
import { SoloPill } from "./SoloPill";
import { WrongPill } from "./WrongPill";

interface Props {
  onFind: () => void;
  onQuiet: () => void;
  onKeys: () => void;
  onNotices: () => void;
}

/** On top, in sight from everywhere: the show, now and next, what is wrong, solo, seals, find, undo. */
export function TopBar({ onFind, onQuiet, onKeys, onNotices }: Props) {
  const wide = useWide();
  const link = useLink();
  const phone = usePhone();
  return (
    <header className="col-span-full flex items-stretch h-14 coarse:h-[68px] border-b border-line bg-floor">
      {phone ? (
        <span className="flex items-center pl-1.5">
          <PhoneMenu onQuiet={onQuiet} onKeys={onKeys} onNotices={onNotices} />
        </span>
      ) : (
        <span className="w-[72px] narrow:w-16 shrink-0 grid place-items-center">
          <img src="/static/mark.svg" alt="Ombrel" className="w-8" />
        </span>
      )}
      <Block first>
        <ShowMenu />
        {!phone && <RolePill />}
      </Block>
      {!phone && (
        <Block>
          <NowNext />
        </Block>
      )}
      <Block>
        <WrongPill />
      </Block>
      <Block>
        <SoloPill />
        {!phone && <SealPill />}
      </Block>
      <div className="flex-1 min-w-0 flex items-center justify-center px-2">
        {wide && <Notices onAll={onNotices} />}
      </div>
      <span className="flex items-center gap-2 pr-4 phone:pr-2 pl-2 shrink-0">
        <QuietKey says={phone} onPress={onQuiet} />
        <button
          type="button"
          onClick={onFind}
          title="Find or do (/)"
          aria-label="Find or do"
          aria-keyshortcuts="/ Control+K"
          className="h-9 coarse:h-11 flex items-center gap-2 px-3 phone:px-2.5 rounded-xl border border-edge bg-card text-soft cursor-pointer hover:text-paper min-[1200px]:min-w-60 narrow:min-w-0"
        >
          <Glyph of="find" className="w-5" />
          <span className="flex-1 text-left narrow:hidden">Find or do…</span>
          <kbd className="font-sans font-semibold border border-edge rounded-md px-1.5 text-[12px] narrow:hidden">
            /
          </kbd>
        </button>
        <Toolbar
          label="Undo and redo"
          className="gap-2"
          tools={{
            undo: (
              <BarKey
                of="undo"
                word="Undo"
                title="Undo (Ctrl+Z)"
                keys="Control+Z"
                onPress={() => void link.undo()}
              />
            ),
            redo: !phone && (
              <BarKey
                of="redo"
                word="Redo"
                title="Redo (Ctrl+Shift+Z)"
                keys="Control+Shift+Z"
                onPress={() => void link.redo()}
              />
            ),
          }}
        />
      </span>
    </header>
  );
}

/** A part of the bar; it takes no room where it has nothing to say. */
function Block({ children, first }: { children: ReactNode; first?: boolean }) {
  return (
    <div
      className={`min-w-0 flex items-center gap-2 px-4 narrow:px-2.5 phone:px-1.5 empty:hidden ${first ? "shrink" : "border-l border-line phone:border-0 shrink-0"}`}
    >
      {children}
    </div>
  );
}

/** On a phone everything is one menu: the places with their views, and the person. */
function PhoneMenu({ onQuiet, ...opens }: Omit<Props, "onFind">) {
  const [path] = useLocation();
  const counts = useCounts();
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger asChild>
        <Button
          aria-label={`The work: ${VIEW_WORD[viewOf(path)] ?? ""}`}
          title="The work"
          className="!h-11 !px-2 min-w-11 justify-center shrink-0"
        >
          <span aria-hidden>☰</span>
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="start" sideOffset={6} className={MENU}>
          {PLACES.map((place) => (
            <PlaceItems key={place.key} place={place} tabs={tabsOf(place, counts)} />
          ))}
          <DropdownMenu.Separator className={RULE} />
          <DropdownMenu.Item className={`${ITEM} min-h-11`} onSelect={onQuiet}>
            Quiet: mute all ears or inputs
          </DropdownMenu.Item>
          <PersonItems {...opens} />
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function PlaceItems({ place, tabs }: { place: Place; tabs: readonly Tab[] }) {
  const [path, navigate] = useLocation();
  return (
    <>
      <DropdownMenu.Label className="px-3 pt-2 flex items-center gap-2 text-[13px] text-faint">
        <Glyph of={place.key} className="w-4" /> {place.word}
      </DropdownMenu.Label>
      {tabs.map((tab) => (
        <DropdownMenu.Item
          key={tab.view}
          className={`${ITEM} justify-between gap-6 min-h-11`}
          onSelect={() => navigate(tab.to)}
        >
          <span className={viewOf(path) === tab.view ? "font-semibold text-sun-text" : ""}>
            {tab.word}
          </span>
          <span className={tab.view === "wrong" ? "text-coral" : "text-faint"}>{tab.count}</span>
        </DropdownMenu.Item>
      ))}
    </>
  );
}
