import { store } from "../data/show";
import { useLink, useShow } from "../data/use";
import { Button } from "../ui/Button";
import { Dialog } from "../ui/Dialog";

const close = () => store.setState({ choice: null });

/** What was asked for can be done in several ways: a person chooses, nothing is guessed. */
export function Choosing() {
  const link = useLink();
  const choice = useShow((state) => state.choice);
  return (
    <Dialog
      title="Several ways"
      about={choice?.message}
      open={choice !== null}
      onOpenChange={(open) => !open && close()}
    >
      <ul className="mt-4 flex flex-col gap-2" aria-label="Ways">
        {choice?.ways.map((way, index) => (
          <li key={way.says}>
            <Button
              autoFocus={index === 0}
              className="w-full justify-start h-auto min-h-9 py-1.5 text-left whitespace-normal"
              onClick={() => {
                close();
                const by_hand = way.by_hand
                  ? { beside: choice.by_hand?.beside ?? [], alone: false, stays: false, sure: true }
                  : null;
                void link.do(
                  { action: "moves", moves: way.moves, says: way.by_hand ? "" : way.says, by_hand },
                  { quiet: false },
                );
              }}
            >
              {way.says}
            </Button>
          </li>
        ))}
      </ul>
      <div className="flex justify-end mt-4">
        <Button tone="quiet" onClick={close}>
          Leave it as it is
        </Button>
      </div>
    </Dialog>
  );
}
