import { useState } from "react";
import { useGroupOptions, useLink } from "../../data/use";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Entry } from "../../ui/Entry";

const NEW = "";

/** A lift in one line: its name, who sings, and whether they have a group already. */
export function NewLift() {
  const link = useLink();
  const groups = useGroupOptions();
  const [name, setName] = useState("");
  const [strips, setStrips] = useState("");
  const [backing, setBacking] = useState(NEW);
  return (
    <form
      aria-label="New lift"
      className="flex items-center gap-2 flex-wrap pb-3 shrink-0"
      onSubmit={(event) => {
        event.preventDefault();
        const ask = { action: "make_lift" as const, name, strips, backing: backing || null };
        void link.do(ask, { quiet: false }).then((kept) => {
          if (!kept) return;
          setName("");
          setStrips("");
          setBacking(NEW);
        });
      }}
    >
      <Entry
        label="Name of a new lift"
        placeholder="new lift, such as Voices"
        value={name}
        maxLength={50}
        onChange={setName}
        className="w-52 phone:w-full"
      />
      <Entry
        label="Who sings in it"
        placeholder={backing ? "who of it, or all" : "1-4, 7"}
        value={strips}
        onChange={setStrips}
        className="w-44 phone:flex-1"
      />
      <Choice
        boxed
        label="Its backing group"
        value={backing}
        options={[[NEW, "through a new group"], ...groups]}
        onChange={setBacking}
        className="h-9 coarse:h-11 max-w-56"
      />
      <Button
        tone="main"
        type="submit"
        className="coarse:h-11"
        disabled={!name.trim() || (!strips.trim() && backing === NEW)}
      >
        Make it
      </Button>
    </form>
  );
}
