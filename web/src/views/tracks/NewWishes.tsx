import { useMemo, useState } from "react";
import type { Ask } from "../../data/types";
import { useLink, useShow } from "../../data/use";
import { Button } from "../../ui/Button";
import { Entry } from "../../ui/Entry";
import { MakeForm } from "../../ui/MakeForm";

/** What is to be recorded, in one line or by a press. */
export function NewWishes() {
  const [text, setText] = useState("");
  const ask = useMemo<Ask | null>(
    () => (text.trim() ? { action: "add_wishes", text } : null),
    [text],
  );
  return (
    <MakeForm
      label="To be recorded"
      word="Record it"
      tone="main"
      ask={ask}
      fields={[[text, setText]]}
    >
      <Entry
        label="What is to be recorded"
        placeholder="1-20 processed; return 1-4 as heard; Ambience if there is room"
        value={text}
        onChange={setText}
        maxLength={4000}
        className="flex-1 min-w-64 max-w-2xl phone:min-w-full"
      />
      <Usual />
    </MakeForm>
  );
}

/** The usual, by a press. */
function Usual() {
  const link = useLink();
  const lines = useShow((state) => state.lines.length);
  const returns = useShow((state) => state.returns.length);
  const add = (text: string) => void link.do({ action: "add_wishes", text }, { quiet: false });
  return (
    <span className="order-last flex gap-2">
      {lines > 0 && (
        <Button small type="button" onClick={() => add("all lines raw")}>
          All lines, raw
        </Button>
      )}
      {returns > 0 && (
        <Button small type="button" onClick={() => add("returns as heard")}>
          All returns
        </Button>
      )}
      <Button small type="button" onClick={() => add("house as heard")}>
        House
      </Button>
    </span>
  );
}
