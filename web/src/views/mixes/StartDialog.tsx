import { useMemo, useState } from "react";
import { valueIn } from "../../data/show";
import type { Ask } from "../../data/types";
import { stripName, useLink, useShow } from "../../data/use";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Consequence } from "../../ui/Consequence";
import { Dialog } from "../../ui/Dialog";

interface Props {
  /** As they are typed: one starts with these. */
  mixes: string;
  open: boolean;
  onOpenChange: (open: boolean) => void;
}

/** Mixes started from the house, a mix or one level, changed by a recipe; what it does is shown first. */
export function StartDialog(props: Props) {
  return (
    <Dialog
      title="Start mixes"
      about="Every send into them is set anew: from a base, changed by a recipe. One undo brings the old ones back."
      open={props.open}
      onOpenChange={props.onOpenChange}
      wide
    >
      {props.open && <Form {...props} />}
    </Dialog>
  );
}

const FIELD =
  "h-9 coarse:h-11 px-2.5 rounded-lg border border-edge bg-card placeholder:text-faint min-w-0";
const VALUES = 200; // sends that are told one by one
const LEVEL = "level";
const OWN = "own";

function Form({ mixes: first, onOpenChange }: Props) {
  const link = useLink();
  const [mixes, setMixes] = useState(first);
  const [from, setFrom] = useState("house");
  const [level, setLevel] = useState("-12");
  const [recipe, setRecipe] = useState("");
  const [own, setOwn] = useState(false);
  const [dcas, setDcas] = useState(true);
  const [pans, setPans] = useState(true);
  const recipes = useShow((state) => state.desk!.recipes);
  const names = useShow((state) =>
    state.mixes.map((n) => `mix/${n}\t${stripName(state, `mix/${n}`)}`).join("\n"),
  );
  const bases = useMemo(
    () => [
      ["house", "the house, with every mute open"] as const,
      [LEVEL, "one level"] as const,
      ...names
        .split("\n")
        .filter(Boolean)
        .map((row) => row.split("\t") as [string, string]),
    ],
    [names],
  );
  const base = from === LEVEL ? level : from;
  const ask = useMemo<Ask | null>(
    () =>
      mixes.trim() && base.trim()
        ? { action: "start_mixes", mixes, base, recipe: own ? null : recipe, dcas, pans }
        : null,
    [mixes, base, recipe, own, dcas, pans],
  );
  const boost = async () => {
    if (await link.do({ action: "boost_selves", mixes }, { quiet: false })) onOpenChange(false);
  };
  // recipes of roles ship; each mix keeps the one that it was started by
  const kept = useShow((state) =>
    state.mixes
      .map((n) => [stripName(state, `mix/${n}`), valueIn(state, `mix/${n}/recipe`)] as const)
      .filter(([, text]) => text)
      .map(([name, text]) => `as ${name}\t${text}`)
      .join("\n"),
  );
  const known = useMemo(
    () => [
      ...recipes,
      ...kept
        .split("\n")
        .filter(Boolean)
        .map((row) => row.split("\t") as [string, string]),
    ],
    [recipes, kept],
  );
  const role = own ? OWN : (known.find(([, text]) => text === recipe)?.[0] ?? "");
  const take = (name: string) => {
    setOwn(name === OWN);
    if (name !== OWN) setRecipe(known.find(([one]) => one === name)?.[1] ?? "");
  };
  return (
    <form
      className="mt-4 flex flex-col gap-3 min-h-0"
      onSubmit={(event) => {
        event.preventDefault();
        if (ask) void link.do(ask, { quiet: false }).then((kept) => kept && onOpenChange(false));
      }}
    >
      <div className="flex items-center gap-2 flex-wrap">
        <span className="text-soft">Mixes</span>
        <input
          autoFocus
          aria-label="Mixes to start"
          placeholder="mix 1-6"
          className={`${FIELD} w-44`}
          maxLength={400}
          value={mixes}
          onChange={(event) => setMixes(event.currentTarget.value)}
        />
        <span className="text-soft">from</span>
        <Choice boxed label="Start from" value={from} options={bases} onChange={setFrom} />
        {from === LEVEL && (
          <input
            aria-label="Level of all in dB"
            className={`${FIELD} w-20 text-right`}
            maxLength={10}
            value={level}
            onChange={(event) => setLevel(event.currentTarget.value)}
          />
        )}
        <label className="flex items-center gap-1.5 text-soft coarse:min-h-11">
          <input
            type="checkbox"
            className="w-4 h-4 accent-(--sun)"
            checked={dcas}
            onChange={(event) => setDcas(event.currentTarget.checked)}
          />
          DCAs counted
        </label>
        <label className="flex items-center gap-1.5 text-soft coarse:min-h-11">
          <input
            type="checkbox"
            className="w-4 h-4 accent-(--sun)"
            checked={pans}
            onChange={(event) => setPans(event.currentTarget.checked)}
          />
          with pans
        </label>
      </div>
      <div className="flex items-center gap-2 flex-wrap">
        <span className="text-soft">Recipe</span>
        <input
          aria-label="Recipe"
          placeholder="self +6, bass +3, cues = -5, playback off, drums = house -2"
          title="A sign is a step from the base, = is exact; words are self, rest, families, parts, DCAs, lines, strips"
          className={`${FIELD} flex-1`}
          maxLength={2000}
          disabled={own}
          value={own ? "each by the recipe that is kept with it" : recipe}
          onChange={(event) => setRecipe(event.currentTarget.value)}
        />
        <Choice
          boxed
          label="Recipe of a role"
          value={role}
          options={[
            ["", "of a role"],
            ...(kept ? [[OWN, "each its own"] as const] : []),
            ...known.map(([name]) => [name, name] as const),
          ]}
          onChange={take}
        />
      </div>
      <Consequence ask={ask} values={VALUES}>
        Say which mixes: their numbers or names.
      </Consequence>
      <div className="flex justify-end gap-2 flex-wrap">
        <Button
          title="Beside each a mono mix of its performer's own channels at 0 dB, on the next free output"
          disabled={!mixes.trim()}
          onClick={() => void boost()}
        >
          Boost of self beside them
        </Button>
        <span className="flex-1" />
        <Button onClick={() => onOpenChange(false)}>Cancel</Button>
        <Button tone="main" type="submit" disabled={!ask}>
          Start them
        </Button>
      </div>
    </form>
  );
}
