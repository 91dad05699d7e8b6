import { useMemo, useState } from "react";
import { useGroupOptions } from "../../data/use";
import { Choice } from "../../ui/Choice";
import { Entry } from "../../ui/Entry";
import { MakeForm } from "../../ui/MakeForm";

const NEVER = "";

/** Whether something never arrives, or only through a group; as options of a list. */
export function useThrough(): readonly (readonly [string, string])[] {
  const groups = useGroupOptions();
  return useMemo(
    () => [
      [NEVER, "never reach"] as const,
      ...groups.map(([group, listed]) => {
        const number = / · group \d+$/.exec(listed)?.[0] ?? "";
        return [group, `only through ${listed.replace(number, "")} reach${number}`] as const;
      }),
    ],
    [groups],
  );
}

/** One sentence: what, never or through which group, where. */
export function NewPromise() {
  const options = useThrough();
  const [sources, setSources] = useState("");
  const [listeners, setListeners] = useState("");
  const [through, setThrough] = useState(NEVER);
  return (
    <MakeForm
      label="New promise"
      word="Promise"
      tone="main"
      ask={
        !sources.trim() || !listeners.trim()
          ? null
          : { action: "make_promise", sources, listeners, through: through || null, name: "" }
      }
      fields={[
        [sources, setSources],
        [listeners, setListeners],
      ]}
    >
      <Entry
        label="What is promised of"
        placeholder="channels, as 31, 48"
        value={sources}
        onChange={setSources}
        className="w-44 phone:w-full"
      />
      <Choice
        boxed
        label="Never, or through which group"
        value={through}
        options={options}
        onChange={setThrough}
        className="h-9 coarse:h-11 max-w-56 phone:max-w-none phone:w-full"
      />
      <Entry
        label="Where it must not arrive otherwise"
        placeholder="house, matrix 2"
        value={listeners}
        onChange={setListeners}
        className="w-44 phone:flex-1"
      />
    </MakeForm>
  );
}
