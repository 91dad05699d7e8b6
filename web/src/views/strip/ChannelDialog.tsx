import { useMemo, useState } from "react";
import { useLocation } from "wouter";
import { numberOf } from "../../data/address";
import kinds from "../../data/generated/kinds.json";
import type { Ask } from "../../data/types";
import { useLink } from "../../data/use";
import { Button } from "../../ui/Button";
import { Consequence } from "../../ui/Consequence";
import { Dialog } from "../../ui/Dialog";
import { RadioKeys } from "../../ui/RadioKeys";
import { Toggle } from "../../ui/Toggle";

interface Props {
  strip: string;
  name: string;
  open: boolean;
  onOpenChange: (open: boolean) => void;
}

/** A whole channel: copied onto others, or put at another number. */
export function ChannelDialog(props: Props) {
  const number = numberOf(props.strip);
  return (
    <Dialog
      title={`${number} ${props.name}, as a whole`}
      open={props.open}
      onOpenChange={props.onOpenChange}
    >
      {props.open && (
        <div className="mt-3 flex flex-col gap-6">
          <CopyForm {...props} />
          <MoveForm {...props} />
        </div>
      )}
    </Dialog>
  );
}

/** What can be copied, by the core's aspects and their words. */
const ASPECTS = Object.entries(kinds.copied);
// who is copied onto goes on being called as they are, and inserts hold one thing each
const USUAL: ReadonlySet<string> = new Set(
  ASPECTS.map(([key]) => key).filter((key) => key !== "name" && key !== "inserts"),
);
const VALUES = 400; // that are told one by one
const FIELD = "h-9 coarse:h-11 min-w-0 px-2.5 rounded-lg border border-edge bg-card";

function CopyForm({ strip, name, onOpenChange }: Props) {
  const link = useLink();
  const [to, setTo] = useState("");
  const [chosen, setChosen] = useState(USUAL);
  const ask = useMemo<Ask | null>(
    () =>
      to.trim() && chosen.size > 0
        ? {
            action: "copy_strip",
            strip,
            to,
            aspects: ASPECTS.map(([key]) => key).filter((key) => chosen.has(key)),
          }
        : null,
    [strip, to, chosen],
  );
  const toggle = (key: string, on: boolean) =>
    setChosen(new Set(on ? [...chosen, key] : [...chosen].filter((one) => one !== key)));
  return (
    <form
      aria-label={`Copy ${name}`}
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (ask)
          void link.do(ask, { quiet: false }).then((kept) => {
            if (kept) onOpenChange(false);
          });
      }}
    >
      <label className="flex items-center gap-2">
        <span className="text-soft w-20 shrink-0">Copy onto</span>
        <input
          autoFocus
          aria-label={`Copy ${name} onto`}
          placeholder="10-13, drums"
          value={to}
          maxLength={200}
          onChange={(event) => setTo(event.currentTarget.value)}
          className={`${FIELD} flex-1`}
        />
        <Button tone="main" type="submit" disabled={!ask}>
          Copy
        </Button>
      </label>
      <div className="flex gap-1.5 flex-wrap" role="group" aria-label="What is copied">
        {ASPECTS.map(([key, word]) => (
          <Toggle
            key={key}
            label={`Copy: ${word}`}
            pressed={chosen.has(key)}
            onChange={(on) => toggle(key, on)}
          >
            {word}
          </Toggle>
        ))}
        <Button
          small
          onClick={() => setChosen(chosen.size ? new Set() : new Set(ASPECTS.map(([key]) => key)))}
        >
          {chosen.size ? "None" : "All"}
        </Button>
      </div>
      <Consequence ask={ask} values={VALUES}>
        Type the channels that it is copied onto. Every value that moves is shown before.
      </Consequence>
    </form>
  );
}

const WAYS = [
  ["along", "others move along"],
  ["swap", "change places"],
] as const;

function MoveForm({ strip, name, onOpenChange }: Props) {
  const link = useLink();
  const [, navigate] = useLocation();
  const own = String(numberOf(strip));
  const [channels, setChannels] = useState(own);
  const [to, setTo] = useState("");
  const [way, setWay] = useState<string>("along");
  const number = /^\d{1,5}$/.test(to.trim()) ? Number(to) : 0;
  const ask = useMemo<Ask | null>(
    () =>
      number && channels.trim()
        ? { action: "move_channels", channels, to: number, swap: way === "swap" }
        : null,
    [channels, number, way],
  );
  return (
    <form
      aria-label={`Move ${name}`}
      className="flex flex-col gap-2 border-t border-line pt-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (ask)
          void link.do(ask, { quiet: false }).then((kept) => {
            if (!kept) return;
            onOpenChange(false);
            if (channels.trim() === own) navigate(`/strip/channel/${number}`);
          });
      }}
    >
      <div className="flex items-center gap-2 flex-wrap">
        <label className="flex items-center gap-2 flex-1">
          <span className="text-soft w-20 shrink-0">Move</span>
          <input
            aria-label="Channels to move"
            value={channels}
            maxLength={200}
            onChange={(event) => setChannels(event.currentTarget.value)}
            className={`${FIELD} flex-1 w-24`}
          />
        </label>
        <label className="flex items-center gap-2">
          <span className="text-soft">to</span>
          <input
            aria-label={`Number to move ${name} to`}
            placeholder="number"
            inputMode="numeric"
            value={to}
            maxLength={5}
            onChange={(event) => setTo(event.currentTarget.value)}
            className={`${FIELD} w-24`}
          />
        </label>
        <Button type="submit" disabled={!ask}>
          Move
        </Button>
      </div>
      <RadioKeys label="Who is there already" keys={WAYS} chosen={way} onChoose={setWay} />
      <Consequence ask={ask} words>
        Type a number. Scenes, banks, promises, parts and kept settings follow.
      </Consequence>
    </form>
  );
}
