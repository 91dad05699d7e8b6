import { useState } from "react";
import { useBusOptions } from "../../data/use";
import { Choice } from "../../ui/Choice";
import { Entry } from "../../ui/Entry";
import { MakeForm } from "../../ui/MakeForm";

const NEW = "";

/** A mix of all but somebody, in one line: made, and promised to stay so. */
export function MinusForm() {
  const options = useBusOptions("mix");
  const [mix, setMix] = useState(NEW);
  const [name, setName] = useState("");
  const [strips, setStrips] = useState("");
  return (
    <MakeForm
      label="Mix-minus"
      word="Make mix-minus"
      ask={
        !strips.trim() || (mix === NEW && !name.trim())
          ? null
          : { action: "make_minus", strips, name, mix: mix || null }
      }
      fields={[
        [name, setName],
        [strips, setStrips],
      ]}
    >
      <Choice
        boxed
        label="The mix that has all but somebody"
        value={mix}
        options={[[NEW, "a new mix"], ...options]}
        onChange={setMix}
        className="h-9 coarse:h-11 w-44 phone:w-full"
      />
      {mix === NEW && (
        <Entry
          label="Name of the new mix"
          placeholder="its name, as Caller"
          value={name}
          maxLength={40}
          onChange={setName}
          className="w-44 phone:w-full"
        />
      )}
      <span className="text-soft">has all that the house has, but</span>
      <Entry
        label="Whom it must not have"
        placeholder="7"
        value={strips}
        onChange={setStrips}
        className="w-28 phone:flex-1"
      />
    </MakeForm>
  );
}
