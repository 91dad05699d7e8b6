import { useLink, useOn } from "../data/use";
import { Toggle } from "./Toggle";

interface Props {
  address: string;
  /** Whose it is, in its label. */
  of: string;
  /** What it says, on or off alike, or off and on. */
  word: string | readonly [off: string, on: string];
  tone?: "sea" | "coral" | "sun";
}

/** The key of a switch: it says how it stands, and pressing it turns it over. */
export function SwitchKey({ address, of, word, tone }: Props) {
  const link = useLink();
  const on = useOn(address);
  const says = typeof word === "string" ? word : word[on ? 1 : 0];
  return (
    <Toggle
      label={`${says}, ${of}`}
      tone={tone}
      pressed={on}
      onChange={(value) => void link.put(address, value)}
    >
      {says}
    </Toggle>
  );
}
