import { setAlone } from "../../data/hand";
import { useShow } from "../../data/use";

/** For hands without a keyboard: while it is pressed, what they move they move alone. */
export function AloneKey() {
  const alone = useShow((state) => state.alone);
  const needed = useShow((state) => state.gangs.length > 0);
  if (!needed && !alone) return null;
  return (
    <button
      type="button"
      aria-pressed={alone}
      title="Move one alone: no gang follows. On a keyboard: hold A"
      onClick={() => setAlone(!alone)}
      className={`h-9 coarse:h-11 px-3 rounded-xl border border-dashed cursor-pointer ${alone ? "border-sun bg-sun text-on-sun font-semibold" : "border-edge text-soft hover:text-paper"}`}
    >
      alone
    </button>
  );
}
