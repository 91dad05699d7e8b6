import { useMemo, useState } from "react";
import type { Ask } from "../../data/types";
import { useShow } from "../../data/use";
import { Consequence } from "../../ui/Consequence";
import { Entry } from "../../ui/Entry";
import { MakeForm } from "../../ui/MakeForm";

/** A group in one line; who will hear it shared, and what it costs, is told before it is made. */
export function NewSharing() {
  const [strips, setStrips] = useState("");
  const [name, setName] = useState("");
  const ask = useMemo<Ask | null>(
    () => (strips.trim() ? { action: "make_sharing", strips, name } : null),
    [strips, name],
  );
  return (
    <>
      <MakeForm
        label="New group"
        word="Share one gain"
        tone="main"
        ask={ask}
        fields={[
          [strips, setStrips],
          [name, setName],
        ]}
      >
        <Entry
          label="Who shares gain"
          placeholder="who: 1-8, or names"
          value={strips}
          onChange={setStrips}
          className="w-56 phone:w-full"
        />
        <Entry
          label="Name of a new group"
          placeholder="name, such as Panel"
          value={name}
          maxLength={50}
          onChange={setName}
          className="w-48 phone:flex-1"
        />
        <Left />
      </MakeForm>
      {ask && <Consequence ask={ask} words />}
    </>
  );
}

/** What of the desk is taken by it. */
function Left() {
  const told = useShow((state) => state.sharing);
  if (!told) return null;
  const [sides, places] = told.places;
  const [inserts, points] = told.inserts;
  const cost = told.inserts_each
    ? `; each takes ${told.inserts_each} insert point${told.inserts_each > 1 ? "s" : ""}, ${inserts} of ${points} in use`
    : "";
  return (
    <span className="text-soft text-[13px] order-last">
      {sides} of {places} places{cost}
    </span>
  );
}
