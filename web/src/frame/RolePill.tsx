import { useShow } from "../data/use";

const WORDS: Readonly<Record<string, readonly [word: string, says: string]>> = {
  onlooker: ["You look on", "Nothing is changed from here."],
  assistant: [
    "You assist",
    "Line check, who came, notes and paper are yours; all else is for an engineer to change.",
  ],
};

/** What somebody may do here, where it is not all; as a `line` where the bar has no room. */
export function RolePill({ line = false }: { line?: boolean }) {
  const role = useShow((state) => state.role);
  const words = role && WORDS[role];
  if (!words) return null;
  return (
    <span
      data-role={role}
      title={words[1]}
      className={`shrink-0 text-iris font-semibold px-2 py-1 text-[13px] ${line ? "block border-b border-line" : "rounded-lg border border-iris whitespace-nowrap"}`}
    >
      {words[0]}
      <span className={line ? "font-normal" : "sr-only"}>: {words[1]}</span>
    </span>
  );
}
