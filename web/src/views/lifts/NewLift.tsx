import { useState } from "react";
import { useGroupOptions } from "../../data/use";
import { Choice } from "../../ui/Choice";
import { Entry } from "../../ui/Entry";
import { MakeForm } from "../../ui/MakeForm";

const NEW = "";

/** A lift in one line: its name, who sings, and whether they have a group already. */
export function NewLift() {
  const groups = useGroupOptions();
  const [name, setName] = useState("");
  const [strips, setStrips] = useState("");
  const [backing, setBacking] = useState(NEW);
  return (
    <MakeForm
      label="New lift"
      word="Make it"
      tone="main"
      ask={
        !name.trim() || (!strips.trim() && backing === NEW)
          ? null
          : { action: "make_lift", name, strips, backing: backing || null }
      }
      fields={[
        [name, setName],
        [strips, setStrips],
        [backing, setBacking],
      ]}
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
    </MakeForm>
  );
}
