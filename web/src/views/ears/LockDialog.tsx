import { useState } from "react";
import { useLink } from "../../data/use";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";

interface Props {
  /** As typed; "": all. */
  mixes: string;
  open: boolean;
  onOpenChange: (open: boolean) => void;
}

/** Phones move nothing any more; whoever holds one reads why. */
export function LockDialog({ mixes, open, onOpenChange }: Props) {
  return (
    <Dialog
      title={mixes ? "Lock this mix" : "Lock all phones"}
      about="Phones move nothing until it is unlocked, and show the reason. Calls go on; the desk moves what it likes."
      open={open}
      onOpenChange={onOpenChange}
    >
      {open && <Form mixes={mixes} onDone={() => onOpenChange(false)} />}
    </Dialog>
  );
}

function Form({ mixes, onDone }: { mixes: string; onDone: () => void }) {
  const link = useLink();
  const [reason, setReason] = useState("");
  return (
    <form
      className="mt-4 flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void link
          .do({ action: "lock_mixes", mixes, locked: true, reason }, { quiet: false })
          .then((kept) => kept && onDone());
      }}
    >
      <input
        autoFocus
        aria-label="Reason for the lock"
        placeholder="why, for those who hold a phone"
        className="h-9 coarse:h-11 px-2.5 rounded-lg border border-edge bg-card placeholder:text-faint"
        maxLength={120}
        value={reason}
        onChange={(event) => setReason(event.currentTarget.value)}
      />
      <div className="flex justify-end gap-2">
        <Button onClick={onDone}>Cancel</Button>
        <Button tone="main" type="submit">
          Lock
        </Button>
      </div>
    </form>
  );
}
