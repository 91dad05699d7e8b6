import { useMemo } from "react";
import { useSetByHand } from "../../data/hand";
import { useOn, useShow } from "../../data/use";
import { Choice } from "../../ui/Choice";
import { Toggle } from "../../ui/Toggle";

const NOBODY: readonly { at: string; name: string }[] = [];

/** With which casts or performers the scene is in the run; with none named it always is. */
export function SceneConditions({ scene }: { scene: string }) {
  const set = useSetByHand();
  const company = useShow((state) => state.company);
  const parts = useShow((state) => state.parts.size);
  const people = useMemo(
    () =>
      company
        ? [
            ...company.casts.map((one) => ({ at: one.cast, name: one.name })),
            ...company.performers.map((one) => ({ at: one.performer, name: one.name })),
          ]
        : NOBODY,
    [company],
  );
  const named = useShow((state) =>
    people
      .filter((one) => state.values.get(`${scene}/${one.at}`) === true)
      .map((one) => one.at)
      .join(" "),
  );
  // its place is kept until it is told, so that nothing moves away under a hand
  if (company === null && parts > 0) return <div className="h-7 coarse:h-11" />;
  if (people.length === 0) return null;
  const chosen = new Set(named.split(" "));
  return (
    <div className="flex items-center gap-1.5 flex-wrap">
      <span className="text-soft text-[13.5px]">
        {named ? "Go comes here only with" : "Go comes here with every cast"}
      </span>
      {people
        .filter((one) => chosen.has(one.at))
        .map((one) => (
          <With key={one.at} address={`${scene}/${one.at}`} name={one.name} />
        ))}
      <Choice
        boxed
        label="Only with"
        className="h-7 coarse:h-11 w-32"
        value=""
        options={[
          ["", named ? "or with…" : "only with…"],
          ...people.filter((one) => !chosen.has(one.at)).map((one) => [one.at, one.name] as const),
        ]}
        onChange={(at) => at && set(`${scene}/${at}`, "on")}
      />
    </div>
  );
}

function With({ address, name }: { address: string; name: string }) {
  const set = useSetByHand();
  const on = useOn(address);
  return (
    <Toggle
      label={`${name}, only with`}
      pressed={on}
      onChange={(to) => set(address, to ? "on" : "off")}
    >
      {name}
    </Toggle>
  );
}
