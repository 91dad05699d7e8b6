import { useEffect, useRef, useState } from "react";
import { Dialog } from "../../ui/Dialog";
import { NewShowDialog } from "../NewShowDialog";
import { OpenShowFile } from "../OpenShowFile";
import type { Opens } from "./here";
import { Search } from "./Search";

interface Props {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  onKeys: () => void;
  onNotices: () => void;
  view: string;
}

/** Where one was led to a view that takes no hand itself, the hand is at its work. */
function toTheWork(): void {
  if (document.activeElement === document.body) document.getElementById("work")?.focus();
}

/** Find is the way to everything: what is typed is done or gone to. A channel's gain is then in hand. */
export function Find({ open, onOpenChange, onKeys, onNotices, view }: Props) {
  const gain = useRef(false);
  const gone = useRef(false);
  const takeSource = useSourceInHand();
  const [making, setMaking] = useState(false);
  const opener = useRef<HTMLInputElement>(null);
  const opens: Opens = {
    keys: onKeys,
    notices: onNotices,
    newShow: () => setMaking(true),
    openFile: () => opener.current?.click(),
  };
  return (
    <>
      <Dialog
        title="Find"
        bare
        wide
        open={open}
        onOpenChange={onOpenChange}
        onClosed={() => {
          if (gain.current) takeSource();
          const led = gone.current;
          if (led) requestAnimationFrame(toTheWork);
          gain.current = gone.current = false;
          return led;
        }}
      >
        {open && (
          <Search
            view={view}
            opens={opens}
            onDone={({ leads, toGain }) => {
              gone.current = leads;
              gain.current = toGain;
              onOpenChange(false);
            }}
          />
        )}
      </Dialog>
      <NewShowDialog open={making} onOpenChange={setMaking} />
      <OpenShowFile ref={opener} />
    </>
  );
}

/**
 * Puts the first of the selected source's own fields, which stand over Why, into the hand. They may be
 * drawn only after the dialog is gone, or drawn anew: until a hand is somewhere else it is tried again
 * for a moment, and no longer than this page stands.
 */
function useSourceInHand(): () => void {
  const tries = useRef<ReturnType<typeof setTimeout>[] | null>(null);
  useEffect(() => {
    tries.current = [];
    return () => {
      tries.current?.forEach(clearTimeout);
      tries.current = null;
    };
  }, []);
  const focus = () => {
    const there = document.activeElement;
    if (there && there !== document.body && there.id !== "work") return;
    document.querySelector<HTMLInputElement>("[data-source-fields] input")?.focus();
  };
  return () => {
    if (!tries.current) return;
    tries.current.forEach(clearTimeout);
    tries.current = [0, 60, 200, 500, 1000, 2000].map((afterMs) => setTimeout(focus, afterMs));
  };
}
