import { DropdownMenu } from "radix-ui";
import { type ReactNode, useRef, useState } from "react";
import { useLocation } from "wouter";
import { showFileAddress } from "../data/http";
import { useShow, useText } from "../data/use";
import { ElsewhereDialog } from "./ElsewhereDialog";
import { ITEM, MENU, RULE } from "./menu";
import { NewShowDialog } from "./NewShowDialog";
import { OpenShowFile } from "./OpenShowFile";
import { Others } from "./Others";
import { Saved } from "./Saved";

/** Shows in the menu; all of them are in the view of shows. */
const SHOWN = 6;

/** The show that is open, whether it is saved, and all that is done with shows as a whole. */
export function ShowMenu() {
  const fallback = useShow((state) => state.desk?.show.name ?? "");
  const name = useText("show/name") || fallback;
  const desk = useShow((state) => state.desk?.name ?? "");
  const { items, beside } = useShowItems();
  return (
    <div className="min-w-0 flex flex-col justify-center">
      {beside}
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger
          data-show-menu
          title={`${name}, on ${desk}`}
          className="min-w-0 min-h-6 flex items-center gap-1.5 px-2 rounded-lg cursor-pointer hover:bg-card font-semibold leading-snug"
        >
          <span className="sr-only">Menu of the show </span>
          <span className="truncate max-w-56 narrow:max-w-40" dir="auto">
            {name}
          </span>
          <span aria-hidden className="text-faint text-[10px]">
            ▼
          </span>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content align="start" sideOffset={6} className={MENU}>
            {items}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <span className="px-2 flex items-center gap-2 min-w-0 leading-snug">
        <Saved />
        <Others />
      </span>
    </div>
  );
}

/** What can be done with this show and with others: the items of a menu, and what they open. */
export function useShowItems(): { items: ReactNode; beside: ReactNode } {
  const [making, setMaking] = useState(false);
  const [moving, setMoving] = useState(false);
  const id = useShow((state) => state.desk?.show.id);
  const name = useShow((state) => String(state.values.get("show/name") ?? ""));
  const opener = useRef<HTMLInputElement>(null);
  return {
    items: (
      <ShowItems
        onNew={() => setMaking(true)}
        onOpenFile={() => opener.current?.click()}
        onMove={() => setMoving(true)}
      />
    ),
    beside: (
      <>
        <NewShowDialog open={making} onOpenChange={setMaking} />
        <OpenShowFile ref={opener} />
        {id && <ElsewhereDialog show={{ id, name }} open={moving} onOpenChange={setMoving} />}
      </>
    ),
  };
}

interface ItemsProps {
  onNew: () => void;
  onOpenFile: () => void;
  onMove: () => void;
}

function ShowItems({ onNew, onOpenFile, onMove }: ItemsProps) {
  const [, navigate] = useLocation();
  const me = useShow((state) => state.me);
  const current = useShow((state) => state.desk?.show.id);
  const all = useShow((state) => state.role === "owner" || state.role === "engineer");
  return (
    <>
      <DropdownMenu.Label className="px-3 pt-1 pb-0.5 text-[12px] text-faint">
        Open
      </DropdownMenu.Label>
      {me?.shows.slice(0, SHOWN).map((show) => (
        <DropdownMenu.Item
          key={show.id}
          className={ITEM}
          onSelect={() =>
            location.assign(
              show.role === "volunteer" ? `/ride/${show.id}` : `/hears?show=${show.id}`,
            )
          }
        >
          <span aria-hidden className={show.id === current ? "text-sun-text" : "text-faint"}>
            {show.id === current ? "●" : "○"}
          </span>
          <span className="truncate max-w-72" dir="auto">
            {show.name}
          </span>
        </DropdownMenu.Item>
      ))}
      <DropdownMenu.Item className={ITEM} onSelect={onOpenFile}>
        Open a show file…
      </DropdownMenu.Item>
      <DropdownMenu.Item className={ITEM} onSelect={onNew}>
        New show…
      </DropdownMenu.Item>
      <DropdownMenu.Item className={ITEM} onSelect={() => navigate("/shows")}>
        All shows: rename, copy, remove…
      </DropdownMenu.Item>
      <DropdownMenu.Separator className={RULE} />
      {all && current && (
        <DropdownMenu.Item
          className={ITEM}
          onSelect={() => location.assign(showFileAddress(current))}
        >
          Save as a file
        </DropdownMenu.Item>
      )}
      {all && (
        <DropdownMenu.Item className={ITEM} onSelect={onMove}>
          Onto another desk…
        </DropdownMenu.Item>
      )}
      <DropdownMenu.Item className={ITEM} onSelect={() => navigate("/paper")}>
        Print or export…
      </DropdownMenu.Item>
      <DropdownMenu.Item className={ITEM} onSelect={() => navigate("/history")}>
        Points to go back to
      </DropdownMenu.Item>
    </>
  );
}
