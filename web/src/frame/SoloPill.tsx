import { stripName, useLink, useShow, useText } from "../data/use";
import { SOLO_WORD } from "../data/words";
import { Button } from "../ui/Button";
import { Choice } from "../ui/Choice";

const NAMED = 2;

/** While something is soloed: what, whether others are silenced by it, and the way out, everywhere. */
export function SoloPill() {
  const link = useLink();
  const names = useShow((state) =>
    [...state.soloed].map((strip) => stripName(state, strip)).join("\n"),
  );
  const mode = useText("show/solo");
  const silenced = useShow(
    (state) => [...state.ruled.values()].filter((by) => by.muted.includes("show/solo")).length,
  );
  if (!names) return null;
  const all = names.split("\n");
  const more = all.length - NAMED;
  return (
    <span
      role="status"
      aria-label="Solo"
      title={all.join(", ")}
      className={`flex items-center gap-2 min-w-0 h-9 pl-3 pr-1 rounded-full border ${silenced > 0 ? "border-coral bg-blocked" : "border-sun"}`}
    >
      <span className="truncate">
        <strong>solo</strong> {all.slice(0, NAMED).join(", ")}
        {more > 0 && ` and ${more} more`}
        {silenced > 0 && <span className="text-coral"> · {silenced} silenced</span>}
      </span>
      <span className="narrow:hidden">
        <SoloMode mode={mode} />
      </span>
      <Button small onClick={() => void link.do({ action: "clear_solos" })}>
        Clear
      </Button>
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
      onChange={(typed) =>
        void link.do({ action: "moves", moves: [{ address: "show/solo", typed }] })
      }
    />
  );
}
