import { useSetByHand } from "../data/hand";
import { useOn } from "../data/use";
import { Toggle } from "./Toggle";

/** The solo key of a strip or DCA. */
export function SoloKey({ strip, name }: { strip: string; name: string }) {
  const set = useSetByHand();
  const on = useOn(`${strip}/solo`);
  return (
    <Toggle
      label={`solo ${name}`}
      tone="sun"
      pressed={on}
      onChange={(to) => set(`${strip}/solo`, to ? "on" : "off")}
    >
      solo
    </Toggle>
  );
}
