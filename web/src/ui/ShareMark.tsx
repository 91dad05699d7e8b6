import { stripName, useShow, useText } from "../data/use";

/** Beside the name of who shares gain with others: its levels are told as if it spoke alone. */
export function ShareMark({ strip }: { strip: string }) {
  const group = useText(`${strip}/sharing/group`);
  const name = useShow((state) => (group ? stripName(state, group) : ""));
  if (!group) return null;
  const says = `shares gain in ${name}: told as if it spoke alone`;
  return (
    <span role="img" aria-label={says} title={says} className="text-iris font-semibold shrink-0">
      ÷
    </span>
  );
}
