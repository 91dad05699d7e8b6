import type { ReactNode } from "react";
import type { Ask } from "../data/types";
import { useLink } from "../data/use";
import { Button } from "./Button";
import { sending, type Typed } from "./sending";

interface Props {
  label: string;
  /** What is asked for; null: not enough is said yet. */
  ask: Ask | null;
  /** What is typed into it: empty again for the next. */
  fields: readonly Typed[];
  word: string;
  tone?: "main";
  children: ReactNode;
}

/** Something new in one line of fields; what was typed comes back where it is refused. */
export function MakeForm({ label, ask, fields, word, tone, children }: Props) {
  const link = useLink();
  return (
    <form
      aria-label={label}
      className="flex items-center gap-2 flex-wrap pb-3 shrink-0"
      onSubmit={(event) => {
        event.preventDefault();
        if (ask) void sending(fields, () => link.do(ask, { quiet: false }));
      }}
    >
      {children}
      <Button tone={tone} type="submit" className="coarse:h-11" disabled={ask === null}>
        {word}
      </Button>
    </form>
  );
}
