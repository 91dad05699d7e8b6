import { Dialog as RadixDialog } from "radix-ui";
import { type ReactNode, useRef } from "react";
import { Notices } from "./Notices";

interface Props {
  title: string;
  about?: string;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  children: ReactNode;
  wide?: boolean;
  /** Its title is for those who do not see it: what it is for shows by itself. */
  bare?: boolean;
  /** Where the hand goes when it closes; else back to where it was. */
  onClosed?: () => boolean;
}

/** A dialog over the frame; Escape closes it. */
export function Dialog({
  title,
  about,
  open,
  onOpenChange,
  children,
  wide,
  bare,
  onClosed,
}: Props) {
  // the hand goes back to where it was, however the dialog came to be opened
  const before = useRef<HTMLElement | null>(null);
  const wasOpen = useRef(false);
  const since = useRef(0);
  if (open && !wasOpen.current) {
    before.current = document.activeElement as HTMLElement | null;
    since.current = Date.now();
  }
  wasOpen.current = open;
  return (
    <RadixDialog.Root open={open} onOpenChange={onOpenChange}>
      <RadixDialog.Portal>
        <RadixDialog.Overlay className="fixed inset-0 z-50 bg-black/60" />
        <RadixDialog.Content
          aria-describedby={undefined}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            if (onClosed?.()) return;
            const back = before.current;
            (back?.isConnected ? back : document.getElementById("work"))?.focus();
          }}
          className={`fixed z-50 left-1/2 top-1/2 -translate-x-1/2 -translate-y-1/2 max-h-[92vh] flex flex-col rounded-2xl border border-line bg-floor p-5 phone:p-3 shadow-2xl ${
            wide ? "w-[min(1120px,96vw)]" : "w-[min(520px,96vw)]"
          }`}
        >
          <RadixDialog.Title className={bare ? "sr-only" : "font-title text-xl font-bold"}>
            {title}
          </RadixDialog.Title>
          {about && <p className="text-soft mt-0.5">{about}</p>}
          <div className="flex flex-col min-h-0 scrolls -m-1 p-1">{children}</div>
          <Notices since={since.current} />
        </RadixDialog.Content>
      </RadixDialog.Portal>
    </RadixDialog.Root>
  );
}
