import { stripName, useLink, useShow, useText } from "../data/use";
import { SOLO_WORD } from "../data/words";
import { Button } from "../ui/Button";
import { Choice } from "../ui/Choice";
import { usePhone } from "../ui/media";

const NAMED = 2;

/** While something is soloed: what, whether others are silenced by it, and the way out, everywhere. */
export function SoloPill() {
  const link = useLink();
  const phone = usePhone();
  const names = useShow((state) =>
    [...state.soloed].map((strip) => stripName(state, strip)).join("\n"),
  );
  const mode = useText("show/solo");
  const silenced = useShow(
    (state) => [...state.ruled.values()].filter((by) => by.muted.includes("show/solo")).length,
  );
  if (!names)
    return (
      <span className="text-faint narrow:hidden whitespace-nowrap">
        Solo <span className="text-soft">none</span>
      </span>
    );
  const all = names.split("\n");
  const more = all.length - NAMED;
  const clear = () => void link.do({ action: "clear_solos" });
  const tone = silenced > 0 ? "border-coral bg-blocked" : "border-sun";
  if (phone)
    return (
      <span role="status" aria-label="Solo">
        <button
          type="button"
          aria-label={`solo ${all.length}: clear`}
          onClick={clear}
          className={`h-9 coarse:h-11 px-2.5 rounded-full border whitespace-nowrap cursor-pointer ${tone}`}
        >
          solo {all.length} ×
        </button>
      </span>
    );
  return (
    <span
      role="status"
      aria-label="Solo"
      title={all.join(", ")}
      className={`flex items-center gap-2 min-w-0 h-9 coarse:h-[46px] pl-3 pr-1 rounded-full border overflow-hidden ${tone}`}
    >
      <span dir="auto" className="min-w-0 truncate">
        <strong>solo</strong>{" "}
        {silenced > 0 && <span className="text-coral">{silenced} silenced · </span>}
        {all.slice(0, NAMED).join(", ")}
        {more > 0 && ` and ${more} more`}
      </span>
      <span className="narrow:hidden">
        <SoloMode mode={mode} />
      </span>
      <span className="shrink-0">
        <Button small onClick={clear}>
          Clear
        </Button>
      </span>
    </span>
  );
}

/** Where solo keys lead. */
export function SoloMode({ mode }: { mode: string }) {
  const link = useLink();
  return (
    <Choice
      boxed
      label="Where solo leads"
      value={mode}
      options={Object.entries(SOLO_WORD)}
      onChange={(typed) => void link.type("show/solo", typed)}
    />
  );
}
