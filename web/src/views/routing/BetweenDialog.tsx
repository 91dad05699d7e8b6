import { useMemo, useState } from "react";
import { useLocation } from "wouter";
import type { Ask } from "../../data/types";
import { useGroupOptions, useLink } from "../../data/use";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Consequence } from "../../ui/Consequence";
import { Dialog } from "../../ui/Dialog";

interface Props {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  /** What is typed for the beginning: the strips that are taken. */
  strips: string;
}

/** A group between strips and the house, for all of them at once; what it does is shown first. */
export function BetweenDialog(props: Props) {
  return (
    <Dialog
      title="Put a group in between"
      about="These go to the house through one group, which is then ridden as one."
      open={props.open}
      onOpenChange={props.onOpenChange}
    >
      {props.open && <Form {...props} />}
    </Dialog>
  );
}

const NEW = "";

function Form({ strips: first, onOpenChange }: Props) {
  const link = useLink();
  const [, navigate] = useLocation();
  const [strips, setStrips] = useState(first);
  const [exceptions, setExceptions] = useState("");
  const [name, setName] = useState("");
  const [group, setGroup] = useState(NEW);
  const [limit, setLimit] = useState("");
  const [mono, setMono] = useState(false);
  const [promise, setPromise] = useState(true);
  const groups = useGroupOptions();
  const options = [[NEW, "a new group"] as const, ...groups];
  const ready = strips.trim() !== "" && (group !== NEW || name.trim() !== "");
  const ask = useMemo<Ask | null>(
    () =>
      ready
        ? {
            action: "put_between",
            strips,
            exceptions,
            name,
            group: group || null,
            mono,
            promise,
            limit,
          }
        : null,
    [ready, strips, exceptions, name, group, mono, promise, limit],
  );
  const field = "h-9 coarse:h-11 min-w-0 px-2.5 rounded-lg border border-edge bg-card";
  return (
    <form
      className="mt-4 flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (!ask) return;
        void link.do(ask, { quiet: false }).then((kept) => {
          if (!kept) return;
          onOpenChange(false);
          if (promise) navigate("/wrong/promises");
        });
      }}
    >
      <label className="flex items-center gap-2">
        <span className="text-soft w-20 shrink-0">Strips</span>
        <input
          autoFocus
          aria-label="Strips to the house"
          placeholder="1-30, return 1-2"
          value={strips}
          maxLength={400}
          onChange={(event) => setStrips(event.currentTarget.value)}
          className={`${field} flex-1`}
        />
      </label>
      <label className="flex items-center gap-2">
        <span className="text-soft w-20 shrink-0">except</span>
        <input
          aria-label="Strips that stay as they are"
          placeholder="none"
          value={exceptions}
          maxLength={400}
          onChange={(event) => setExceptions(event.currentTarget.value)}
          className={`${field} flex-1`}
        />
      </label>
      <div className="flex items-center gap-2">
        <span className="text-soft w-20 shrink-0">through</span>
        <Choice
          boxed
          label="Through which group"
          value={group}
          options={options}
          onChange={setGroup}
          className="h-9 coarse:h-11"
        />
        {group === NEW && (
          <input
            aria-label="Name of the new group"
            placeholder="Band"
            value={name}
            maxLength={60}
            onChange={(event) => setName(event.currentTarget.value)}
            className={`${field} flex-1`}
          />
        )}
      </div>
      <label className="flex items-center gap-2">
        <span className="text-soft w-20 shrink-0">limiter</span>
        <input
          aria-label="Limiter at, in dBFS"
          placeholder="none"
          value={limit}
          maxLength={10}
          onChange={(event) => setLimit(event.currentTarget.value)}
          className={`${field} w-24`}
        />
        <span className="text-faint text-[13px]">dBFS, such as −6: its compressor holds peaks</span>
      </label>
      <Check label="To mono through it too" checked={mono} onChange={setMono} />
      <Check
        label="Keep it as a promise: nothing passes it unseen"
        checked={promise}
        onChange={setPromise}
      />
      <Consequence ask={ask} words>
        Type the strips and a name, such as 1-30 and Band.
      </Consequence>
      <div className="flex justify-end gap-2">
        <Button onClick={() => onOpenChange(false)}>Cancel</Button>
        <Button tone="main" type="submit" disabled={!ready}>
          Put it in
        </Button>
      </div>
    </form>
  );
}

interface CheckProps {
  label: string;
  checked: boolean;
  onChange: (checked: boolean) => void;
}

function Check({ label, checked, onChange }: CheckProps) {
  return (
    <label className="flex items-center gap-2 coarse:min-h-11 cursor-pointer">
      <input
        type="checkbox"
        checked={checked}
        onChange={(event) => onChange(event.currentTarget.checked)}
        className="w-4 h-4 accent-sun"
      />
      {label}
    </label>
  );
}
