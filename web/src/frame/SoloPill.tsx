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
  const clear = () => void link.do({ action: "clear_solos" });
  // the next key would silence the house: said before it is pressed
  if (!names && mode === "in_place")
    return (
      <span
        role="status"
        aria-label="Solo"
        className="flex items-center gap-2 h-9 coarse:h-[46px] pl-3 pr-1 phone:pl-2 rounded-full border border-coral whitespace-nowrap"
      >
        <span className="text-coral">
          solo <span className="phone:hidden">is </span>in place
        </span>
        <Button small onClick={clear} aria-label="Clear: end solo in place">
          Clear
        </Button>
      </span>
    );
  if (!names)
    return (
      <span className="text-faint narrow:hidden whitespace-nowrap">
        Solo <span className="text-soft">none</span>
      </span>
    );
  const all = names.split("\n");
  const more = all.length - NAMED;
  const tone = silenced > 0 ? "border-coral bg-blocked" : "border-sun";
  if (phone)
    return (
      <span role="status" aria-label="Solo">
        <button
          type="button"
          aria-label={`solo ${all.join(", ")}${silenced > 0 ? `, ${silenced} silenced` : ""}: clear`}
          onClick={clear}
          className={`h-9 coarse:h-11 px-2 rounded-full border cursor-pointer leading-tight text-[12px] max-w-28 ${tone}`}
        >
          <span dir="auto" className="block truncate">
            {all[0]}
            {all.length > 1 && ` +${all.length - 1}`} ×
          </span>
          <span className={`block ${silenced > 0 ? "text-coral" : "text-faint"}`}>
            {silenced > 0 ? `${silenced} silenced` : "solo"}
          </span>
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
