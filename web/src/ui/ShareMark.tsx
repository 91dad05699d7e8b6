import { valueIn } from "../data/show";
import { stripName, useShow } from "../data/use";

/** Beside the name of who shares gain with others: its levels are told as if it spoke alone. */
export function ShareMark({ strip }: { strip: string }) {
  const name = useShow((state) => {
    const at = `${strip}/sharing/group`;
    const group = state.catalogue?.has(at) ? valueIn(state, at) : null; // a return has none
    return typeof group === "string" ? stripName(state, group) : "";
  });
  if (!name) return null;
  const says = `shares gain in ${name}: told as if it spoke alone`;
  return (
    <span role="img" aria-label={says} title={says} className="text-iris font-semibold shrink-0">
      ÷
    </span>
  );
}
