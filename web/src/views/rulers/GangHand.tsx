import { Link as RouteLink } from "wouter";
import { isOf, lastOf } from "../../data/address";
import { type ShowState, valueIn } from "../../data/show";
import { useShow } from "../../data/use";
import { inSentence } from "../../data/words";
import { SwitchKey } from "../../ui/SwitchKey";

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
}

/** In what its members move together, whether it rests, and where they lie under the hand. */
export function GangHand({ ruler, name }: Props) {
  const aspects = useShow((state) =>
    aspectsOf(state)
      .map(({ leaf, label }) => `${leaf}\t${label}`)
      .join("\n"),
  );
  return (
    <div className="flex items-center gap-2 flex-wrap">
      <span className="text-soft text-[13.5px]">Moves together</span>
      {aspects.split("\n").map((row) => {
        const [leaf, label] = row.split("\t") as [string, string];
        return <SwitchKey key={leaf} address={`${ruler}/${leaf}`} of={name} word={label} />;
      })}
      <span className="w-3" />
      <SwitchKey
        address={`${ruler}/suspended`}
        of={name}
        word={["rest", "resting: press to resume"]}
        tone="sun"
      />
      <RouteLink
        to={`/banks?unfold=${ruler}`}
        className="text-sun-text underline coarse:h-11 inline-flex items-center text-[13.5px]"
      >
        Unfold on the banks
      </RouteLink>
    </div>
  );
}
