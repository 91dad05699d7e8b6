import { useMemo, useState } from "react";
import { Link as RouteLink } from "wouter";
import { valueIn } from "../../data/show";
import { useShow } from "../../data/use";
import { ViewHead } from "../../frame/ViewHead";
import { Choice } from "../../ui/Choice";
import { Entry } from "../../ui/Entry";
import { MakeForm } from "../../ui/MakeForm";
import { Empty } from "../../ui/Panel";
import { InRow, useRows } from "../../ui/reach";
import { EffectCard } from "./EffectCard";
import { Tempo } from "./Tempo";

/** Shared effects: each with what it does, who is sent to it, and who gets its return. */
export function EffectsView() {
  const engines = useShow((state) => {
    const fed: number[] = [];
    for (let n = 1; n <= (state.desk?.effect_engines ?? 0); n++)
      if (valueIn(state, `engine/${n}/source`) !== null) fed.push(n);
    return fed.join(" ");
  });
  const numbers = useMemo(() => engines.split(" ").filter(Boolean), [engines]);
  const most = useShow((state) => state.desk?.effect_engines ?? 0);
  const channels = useShow((state) => state.channels.length);
  const rows = useRows(numbers.map((number) => `engine/${number}`));
  const left = most - numbers.length;
  return (
    <>
      <ViewHead title="Effects">
        <span className={left === 0 ? "text-coral" : "text-soft"}>
          {left} of {most} engines free
        </span>
        <span className="flex-1" />
        <Tempo />
      </ViewHead>
      {left > 0 && <NewEffect />}
      {numbers.length === 0 ? (
        <Empty title="No shared effect yet">
          <p>
            Name one and say who goes there: its mix, its engine and its return are made in one.
          </p>
          {channels === 0 && (
            <RouteLink to="/patch" className="text-sun-text underline">
              First give channels a source, in Patch
            </RouteLink>
          )}
        </Empty>
      ) : (
        <ul {...rows.hand} className="scrolls flex-1 min-h-0 flex flex-col gap-2 pr-1">
          {numbers.map((number) => (
            <InRow key={number} of={`engine/${number}`} rows={rows}>
              <EffectCard engine={`engine/${number}`} />
            </InRow>
          ))}
        </ul>
      )}
    </>
  );
}

/** A shared effect in one line: its name, what it is, who is sent there and how loud. */
function NewEffect() {
  const kinds = useShow((state) => state.catalogue!.at("engine/1/kind").options ?? []);
  const [name, setName] = useState("");
  const [kind, setKind] = useState("hall");
  const [strips, setStrips] = useState("");
  const [level, setLevel] = useState(useShow((state) => String(state.desk!.new_mix.level_db)));
  return (
    <MakeForm
      label="New effect"
      word="Make it"
      tone="main"
      ask={
        !name.trim()
          ? null
          : { action: "make_effect", name, engine: 0, stereo: true, kind, strips, level }
      }
      fields={[
        [name, setName],
        [strips, setStrips],
      ]}
    >
      <Entry
        label="Name of a new effect"
        placeholder="new effect, such as Hall"
        value={name}
        maxLength={60}
        onChange={setName}
        className="w-52 phone:w-full"
      />
      <Choice
        boxed
        label="What the new effect is"
        value={kind}
        options={kinds.map((one) => [one, one] as const)}
        onChange={setKind}
        className="h-9 coarse:h-11"
      />
      <Entry
        label="Strips sent to the new effect"
        placeholder="1-8, drums, or nobody yet"
        value={strips}
        onChange={setStrips}
        className="w-40 phone:flex-1"
      />
      <span className="text-soft">at</span>
      <Entry
        label="Level of the sends to the new effect"
        value={level}
        maxLength={10}
        onChange={setLevel}
        className="w-16 text-right"
      />
    </MakeForm>
  );
}
