import { Link as RouteLink } from "wouter";
import { isOf, lastOf } from "../../data/address";
import { type ShowState, valueIn } from "../../data/show";
import { useOn, useShow } from "../../data/use";
import { inSentence } from "../../data/words";
import { Toggle } from "../../ui/Toggle";

/** What a gang can carry, as the catalogue has it: "carries_fader", "Faders". */
const aspectsOf = (state: ShowState) =>
  state
    .desk!.parameters.filter(({ key }) => isOf(key, "gang") && lastOf(key).startsWith("carries_"))
    .map(({ key, label }) => ({ leaf: lastOf(key), label }));

export const carriesText = (state: ShowState, gang: string): string =>
  aspectsOf(state)
    .filter(({ leaf }) => valueIn(state, `${gang}/${leaf}`) === true)
    .map(({ label }) => inSentence(label))
    .join(", ") || "nothing";

interface Props {
  ruler: string;
  name: string;
  set: (leaf: string, typed: string) => void;
}

/** In what its members move together, whether it rests, and where they lie under the hand. */
export function GangHand({ ruler, name, set }: Props) {
  const aspects = useShow((state) =>
    aspectsOf(state)
      .map(({ leaf, label }) => `${leaf}\t${label}`)
      .join("\n"),
  );
  const suspended = useOn(`${ruler}/suspended`);
  return (
    <div className="flex items-center gap-2 flex-wrap">
      <span className="text-soft text-[13.5px]">Moves together</span>
      {aspects.split("\n").map((row) => {
        const [leaf, label] = row.split("\t") as [string, string];
        return <Aspect key={leaf} gang={ruler} leaf={leaf} label={label} name={name} set={set} />;
      })}
      <span className="w-3" />
      <Toggle
        label={`${suspended ? "suspended: press to resume" : "suspend"}, ${name}`}
        tone="sun"
        pressed={suspended}
        onChange={(on) => set("suspended", on ? "on" : "off")}
      >
        {suspended ? "suspended: press to resume" : "suspend"}
      </Toggle>
      <RouteLink
        to={`/banks?unfold=${ruler}`}
        className="text-sun-text underline coarse:h-11 inline-flex items-center text-[13.5px]"
      >
        Unfold on the banks
      </RouteLink>
    </div>
  );
}

function Aspect({
  gang,
  leaf,
  label,
  name,
  set,
}: Omit<Props, "ruler"> & { gang: string; leaf: string; label: string }) {
  const on = useOn(`${gang}/${leaf}`);
  return (
    <Toggle
      label={`${label} of ${name}`}
      pressed={on}
      onChange={(to) => set(leaf, to ? "on" : "off")}
    >
      {label}
    </Toggle>
  );
}
