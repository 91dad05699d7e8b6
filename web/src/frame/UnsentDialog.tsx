import { lastOf, targetOf, thingOf } from "../data/address";
import type { ShowState } from "../data/show";
import { store } from "../data/show";
import type { Unsent } from "../data/unsent";
import { stripName, useLink, useShow } from "../data/use";
import { valueText } from "../data/words";
import { Button } from "../ui/Button";
import { Dialog } from "../ui/Dialog";

const NAMED = 6;

/** One edit as a person knows it: what it was on, or what it was to do. */
function inWords(state: ShowState, { ask }: Unsent): string {
  if (ask.action !== "moves") return ask.action.replaceAll("_", " ");
  if (ask.says) return ask.says;
  const { address, value, typed } = ask.moves[0]!;
  const strip = thingOf(address).thing;
  const to = targetOf(address);
  const known = state.catalogue?.has(address) ? state.catalogue.at(address) : null;
  const what = `${known?.label ?? lastOf(address)}${to ? ` to ${stripName(state, to)}` : ""}`;
  const there = typed ?? (known ? valueText(known, value ?? null) : "");
  const more = ask.moves.length > 1 ? ` and ${ask.moves.length - 1} more` : "";
  return `${stripName(state, strip)}: ${what}${there && `, ${there}`}${more}`;
}

/** A page was closed before it had sent all, and the show went on since: a person says what is right. */
export function UnsentDialog() {
  const link = useLink();
  const unsent = useShow((state) => state.unsent);
  const forget = () => store.setState({ unsent: [] });
  const words = unsent.length === 1 ? "1 move" : `${unsent.length} moves`;
  return (
    <Dialog
      title="Not sent yet"
      about={`A page of yours was closed before it had sent ${words}, and the show has moved on since.`}
      open={unsent.length > 0}
      onOpenChange={() => {
        /* neither is guessed: one of the two keys below */
      }}
    >
      <ul className="mt-3 flex flex-col gap-1" aria-label="Not sent">
        {unsent.slice(0, NAMED).map((one) => (
          <li key={one.id}>{inWords(store.getState(), one)}</li>
        ))}
        {unsent.length > NAMED && <li className="text-faint">and {unsent.length - NAMED} more</li>}
      </ul>
      <div className="flex justify-end gap-2 mt-4">
        <Button autoFocus onClick={forget}>
          Leave them
        </Button>
        <Button tone="main" onClick={() => link.sendUnsent(unsent)}>
          Make them now
        </Button>
      </div>
    </Dialog>
  );
}
