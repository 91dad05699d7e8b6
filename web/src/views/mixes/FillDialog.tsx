import { useMemo, useState } from "react";
import type { Ask } from "../../data/types";
import { stripName, useLink, useShow } from "../../data/use";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Consequence } from "../../ui/Consequence";
import { Dialog } from "../../ui/Dialog";

interface Props {
  mix: string;
  open: boolean;
  onOpenChange: (open: boolean) => void;
}

/** Fill a mix from the house's true levels or from another mix; what it does is shown first. */
export function FillDialog(props: Props) {
  const name = useShow((state) => stripName(state, props.mix));
  return (
    <Dialog
      title={`Fill ${name}`}
      about="Every send into it is replaced, but those that you leave alone. One undo brings the old ones back."
      open={props.open}
      onOpenChange={props.onOpenChange}
    >
      {props.open && <Form {...props} />}
    </Dialog>
  );
}

const VALUES = 200; // sends that are told one by one

function Form({ mix, onOpenChange }: Props) {
  const link = useLink();
  const [source, setSource] = useState("house");
  const [offset, setOffset] = useState("0");
  const [exceptions, setExceptions] = useState("");
  const mixes = useShow((state) =>
    state.mixes
      .map((n) => `mix/${n}`)
      .filter((one) => one !== mix)
      .map((one) => `${one}\t${stripName(state, one)}`)
      .join("\n"),
  );
  const options = useMemo(
    () => [
      ["house", "the house's true levels"] as const,
      ...mixes
        .split("\n")
        .filter(Boolean)
        .map((row) => row.split("\t") as [string, string]),
    ],
    [mixes],
  );
  const ask = useMemo<Ask>(
    () => ({ action: "fill_mix", mix, source, offset, exceptions }),
    [mix, source, offset, exceptions],
  );
  return (
    <form
      className="mt-4 flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void link.do(ask, { quiet: false }).then((kept) => kept && onOpenChange(false));
      }}
    >
      <div className="flex items-center gap-2">
        <span className="text-soft w-14">From</span>
        <Choice
          boxed
          label="From"
          value={source}
          options={options}
          onChange={setSource}
          className="h-9 flex-1"
        />
        <span className="text-soft">offset</span>
        <input
          autoFocus
          aria-label="Offset in dB"
          className="h-9 w-20 px-2.5 rounded-lg border border-edge bg-card text-right"
          value={offset}
          onChange={(event) => setOffset(event.currentTarget.value)}
        />
        <span className="text-soft">dB</span>
      </div>
      <label className="flex items-center gap-2">
        <span className="text-soft w-14">except</span>
        <input
          aria-label="Strips that are left alone"
          placeholder="return 1, click"
          className="h-9 flex-1 min-w-0 px-2.5 rounded-lg border border-edge bg-card placeholder:text-faint"
          maxLength={400}
          value={exceptions}
          onChange={(event) => setExceptions(event.currentTarget.value)}
        />
      </label>
      <Consequence ask={ask} values={VALUES} />
      <div className="flex justify-end gap-2">
        <Button onClick={() => onOpenChange(false)}>Cancel</Button>
        <Button tone="main" type="submit">
          Fill it
        </Button>
      </div>
    </form>
  );
}
