import { useMemo, useState } from "react";
import type { Ask, StripPath } from "../../data/types";
import { useLink } from "../../data/use";
import { Button } from "../../ui/Button";
import { Consequence } from "../../ui/Consequence";
import { Dialog } from "../../ui/Dialog";
import { Toggle } from "../../ui/Toggle";
import { stripsText } from "../rulers/kinds";

type Card = StripPath["presets"][number];

const ASPECTS = [
  ["low_cut", "Low cut"],
  ["gate", "Gate"],
  ["eq", "EQ"],
  ["compressor", "Compressor"],
] as const;

interface Props {
  strip: string;
  name: string;
  presets: readonly Card[];
  open: boolean;
  onOpenChange: (open: boolean) => void;
}

/** Processing by a name: put on strips, whole or in part, or kept from this one. */
export function PresetsDialog(props: Props) {
  return (
    <Dialog
      wide
      title={`Presets for ${props.name}`}
      about="What suits its line comes first. What it does is shown before it is done."
      open={props.open}
      onOpenChange={props.onOpenChange}
    >
      {props.open && <Form {...props} />}
    </Dialog>
  );
}

function Form({ strip, presets, name, onOpenChange }: Props) {
  const link = useLink();
  const [chosen, setChosen] = useState(presets[0]?.preset ?? "");
  const [to, setTo] = useState(stripsText([strip]));
  const [aspects, setAspects] = useState<readonly string[]>(ASPECTS.map(([key]) => key));
  const [kept, setKept] = useState("");
  const card = presets.find((one) => one.preset === chosen);
  const wanted = useMemo(
    () => aspects.filter((one) => card?.aspects.includes(one)),
    [aspects, card],
  );
  const ask = useMemo<Ask | null>(
    () =>
      card && to.trim() && wanted.length > 0
        ? { action: "apply_preset", preset: card.preset, to, aspects: wanted }
        : null,
    [card, to, wanted],
  );
  const field = "h-9 coarse:h-11 min-w-0 px-2.5 rounded-lg border border-edge bg-card";
  return (
    <div className="mt-3 grid grid-cols-[minmax(220px,300px)_minmax(0,1fr)] phone:grid-cols-1 gap-4">
      <ul
        className="scrolls max-h-[52vh] phone:max-h-[26vh] flex flex-col gap-0.5"
        aria-label="Presets"
      >
        {presets.map((one) => (
          <li key={one.preset}>
            <button
              type="button"
              aria-pressed={one.preset === chosen}
              onClick={() => setChosen(one.preset)}
              className={`w-full text-left px-3 min-h-9 coarse:min-h-11 rounded-lg flex items-center gap-2 cursor-pointer ${one.preset === chosen ? "bg-raise font-semibold" : "hover:bg-card"}`}
            >
              <span dir="auto" className="flex-1 min-w-0 break-words">
                {one.name}
              </span>
              <span className="text-faint text-[12px]">
                {[one.suits && "suits", one.own && "your own"].filter(Boolean).join(", ")}
              </span>
            </button>
          </li>
        ))}
      </ul>
      <div className="flex flex-col gap-4 min-w-0">
        <form
          aria-label="Put it on strips"
          className="flex flex-col gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            if (ask)
              void link.do(ask, { quiet: false }).then((done) => done && onOpenChange(false));
          }}
        >
          <h3 dir="auto" className="font-semibold break-words">
            {card?.name}
          </h3>
          <fieldset className="flex gap-1.5 flex-wrap border-0 p-0 m-0">
            <legend className="sr-only">What of it</legend>
            {ASPECTS.map(([key, word]) => (
              <Toggle
                key={key}
                label={word}
                disabled={!card?.aspects.includes(key)}
                pressed={wanted.includes(key)}
                onChange={(on) =>
                  setAspects(on ? [...aspects, key] : aspects.filter((one) => one !== key))
                }
              >
                {word}
              </Toggle>
            ))}
          </fieldset>
          <label className="flex items-center gap-2">
            <span className="text-soft">on</span>
            <input
              autoFocus
              aria-label="Strips that get it"
              value={to}
              maxLength={400}
              onChange={(event) => setTo(event.currentTarget.value)}
              className={`${field} flex-1`}
            />
          </label>
          <Consequence ask={ask} values>
            Choose what of it, and on which strips.
          </Consequence>
          <div className="flex justify-end gap-2 flex-wrap">
            {card?.own && (
              <Button
                tone="danger"
                onClick={() =>
                  void link.do({ action: "forget_preset", preset: card.preset }, { quiet: false })
                }
              >
                Forget it
              </Button>
            )}
            <Button onClick={() => onOpenChange(false)}>Cancel</Button>
            <Button tone="main" type="submit" disabled={!ask}>
              Put it on
            </Button>
          </div>
        </form>
        <form
          aria-label="Keep a preset"
          className="flex items-center gap-2 flex-wrap border-t border-line pt-3"
          onSubmit={(event) => {
            event.preventDefault();
            const keep = {
              action: "keep_preset" as const,
              strip,
              name: kept,
              aspects: [...aspects],
            };
            void link.do(keep, { quiet: false }).then((done) => done && setKept(""));
          }}
        >
          <input
            aria-label="Name of a new preset"
            placeholder={`Keep ${name} as…`}
            value={kept}
            maxLength={60}
            onChange={(event) => setKept(event.currentTarget.value)}
            className={`${field} flex-1 min-w-40`}
          />
          <Button type="submit" disabled={!kept.trim() || aspects.length === 0}>
            Keep
          </Button>
        </form>
      </div>
    </div>
  );
}
