import { useShow } from "../data/use";
import { useOutputs } from "./places";

const WORDS = {
  channels: ["channel", "channels"],
  mixes: ["mix", "mixes"],
  groups: ["group", "groups"],
  matrices: ["matrix", "matrices"],
  outputs: ["output", "outputs"],
} as const;

type What = keyof typeof WORDS;

/** What the desk still has free, told where it is spent; nothing left is told loudly. */
export function Free({ of }: { of: readonly What[] }) {
  return (
    <span
      className="flex gap-x-3 flex-wrap text-[13px]"
      role="group"
      aria-label="Free on this desk"
    >
      {of.map((what) => (
        <Count key={what} what={what} />
      ))}
    </span>
  );
}

function Count({ what }: { what: What }) {
  const outputs = useOutputs();
  const left = useShow((state) =>
    what === "outputs" ? 0 : (state.desk?.[what] ?? 0) - state[what].length,
  );
  const free = what === "outputs" ? outputs.all - outputs.taken : left;
  return (
    <span className={`whitespace-nowrap ${free === 0 ? "text-coral" : "text-faint"}`}>
      {free === 0 ? "no" : free} {WORDS[what][free === 1 ? 0 : 1]} free
    </span>
  );
}
