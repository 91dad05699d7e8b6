import { useMemo, useState } from "react";
import type { Ask } from "../../data/types";
import { useLink } from "../../data/use";
import { Button } from "../../ui/Button";
import { Consequence } from "../../ui/Consequence";
import { Dialog } from "../../ui/Dialog";

interface Props {
  open: boolean;
  onOpenChange: (open: boolean) => void;
}

const FIELD =
  "h-9 coarse:h-11 px-2.5 rounded-lg border border-edge bg-card placeholder:text-faint min-w-0";

/** Who came later is opened in all ears and wedges at once, where they are not heard yet. */
export function JoinDialog({ open, onOpenChange }: Props) {
  return (
    <Dialog
      title="Join later"
      about="Channels, performers or families that came later open in every mix where they are closed. What is open stays as it is."
      open={open}
      onOpenChange={onOpenChange}
      wide
    >
      {open && <Form onDone={() => onOpenChange(false)} />}
    </Dialog>
  );
}

function Form({ onDone }: { onDone: () => void }) {
  const link = useLink();
  const [strips, setStrips] = useState("");
  const [mixes, setMixes] = useState("");
  const [level, setLevel] = useState("-12");
  const ask = useMemo<Ask | null>(
    () => (strips.trim() ? { action: "join_mixes", strips, mixes, level } : null),
    [strips, mixes, level],
  );
  const fields = [
    ["Who joins", strips, setStrips, "33-35, Fiddle, drums", "flex-1"],
    ["Which mixes join them", mixes, setMixes, "all ears and wedges", "w-56"],
    ["Level in dB", level, setLevel, "-12", "w-20 text-right"],
  ] as const;
  return (
    <form
      className="mt-4 flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (ask) void link.do(ask, { quiet: false }).then((kept) => kept && onDone());
      }}
    >
      <div className="flex items-center gap-2 flex-wrap">
        {fields.map(([label, value, set, placeholder, width], index) => (
          <input
            key={label}
            autoFocus={index === 0}
            aria-label={label}
            title={label}
            placeholder={placeholder}
            className={`${FIELD} ${width}`}
            maxLength={400}
            value={value}
            onChange={(event) => set(event.currentTarget.value)}
          />
        ))}
      </div>
      <Consequence ask={ask} values={60}>
        Say who joins: channels by number or name, performers, families.
      </Consequence>
      <div className="flex justify-end gap-2">
        <Button onClick={onDone}>Cancel</Button>
        <Button tone="main" type="submit" disabled={!ask}>
          Join them
        </Button>
      </div>
    </form>
  );
}
