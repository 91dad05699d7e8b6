import type { Ask } from "../data/types";
import { useLink } from "../data/use";
import { Button } from "./Button";
import { Consequence } from "./Consequence";
import { useTakeOrLeave } from "./keys";

/** An edit by which somebody would lose something: shown first, then taken or left. */
export function Taking({ ask, onDone }: { ask: Ask; onDone: () => void }) {
  const link = useLink();
  useTakeOrLeave(() => void takeIt(link, ask, onDone), onDone);
  return (
    <div className="flex items-start gap-3 shrink-0">
      <div className="flex-1 min-w-0">
        <Consequence ask={ask} />
      </div>
      <Button
        tone="main"
        onClick={() => void takeIt(link, ask, onDone)}
        title="Ctrl+Enter"
        aria-keyshortcuts="Control+Enter"
      >
        Take it
      </Button>
      <Button onClick={onDone} title="Escape" aria-keyshortcuts="Escape">
        Leave it
      </Button>
    </div>
  );
}

/** Make the edit; done once it is kept. */
export async function takeIt(
  link: ReturnType<typeof useLink>,
  ask: Ask,
  onDone: () => void,
): Promise<void> {
  if (await link.do(ask, { quiet: false })) onDone();
}
