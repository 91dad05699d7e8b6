import { useState } from "react";
import { useLink } from "../../data/use";
import { Button } from "../../ui/Button";

/** Adds a line by its name, after the others. */
export function NewLine() {
  const link = useLink();
  const [name, setName] = useState("");
  const add = async () => {
    if (name.trim() && (await link.do({ action: "add_line", name: name.trim() }))) setName("");
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
        aria-label="Name of a new line"
        placeholder="Name of a new line"
        maxLength={60}
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
