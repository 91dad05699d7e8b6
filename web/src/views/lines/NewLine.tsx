import { useState } from "react";
import { useLink } from "../../data/use";
import { Button } from "../../ui/Button";
import { sending } from "../../ui/sending";
import { useGoingOn } from "../../ui/useGoingOn";

/** Adds a line by its name, after the others. */
export function NewLine() {
  const link = useLink();
  const [name, setName] = useState("");
  const field = useGoingOn("new line", name, setName);
  const add = async () => {
    const typed = name.trim();
    if (typed) await sending([[name, setName]], () => link.do({ action: "add_line", name: typed }));
  };
  return (
    <form
      className="flex gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        void add();
      }}
    >
      <input
        ref={field}
        aria-label="Name of a new line"
        placeholder="Name of a new line"
        maxLength={120}
        className="h-8 px-2.5 rounded-lg border border-edge bg-card placeholder:text-faint"
        value={name}
        onChange={(event) => setName(event.currentTarget.value)}
      />
      <Button small type="submit" className="h-8" disabled={!name.trim()}>
        Add
      </Button>
    </form>
  );
}
