import type { ReactNode } from "react";
import type { Ask } from "../data/types";
import { useLink } from "../data/use";
import { Button } from "./Button";

interface Props {
  label: string;
  /** What is asked for; null: not enough is said yet. */
  ask: Ask | null;
  /** It was made: the line is empty again. */
  onMade: () => void;
  word: string;
  tone?: "main";
  children: ReactNode;
}

/** Something new in one line of fields; what was typed stays until it is made. */
export function MakeForm({ label, ask, onMade, word, tone, children }: Props) {
  const link = useLink();
  return (
    <form
      aria-label={label}
      className="flex items-center gap-2 flex-wrap pb-3 shrink-0"
      onSubmit={(event) => {
        event.preventDefault();
        if (ask) void link.do(ask, { quiet: false }).then((kept) => kept && onMade());
      }}
    >
      {children}
      <Button tone={tone} type="submit" className="coarse:h-11" disabled={ask === null}>
        {word}
      </Button>
    </form>
  );
}
