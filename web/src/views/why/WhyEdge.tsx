import { useShow } from "../../data/use";
import { levelText } from "../../data/words";

/** Why folded to an edge: what it answers for, and what the answer is; a press unfolds it. */
export function WhyEdge({ onUnfold }: { onUnfold: () => void }) {
  const why = useShow((state) => state.why);
  const heard = why?.state === "heard";
  const level = !why
    ? ""
    : heard
      ? `${levelText(why.level_db)} dB`
      : why.state === "unrouted"
        ? "not sent"
        : "silent";
  return (
    <aside
      aria-label="Why"
      className="w-10 coarse:w-[46px] border-x border-line bg-floor flex flex-col min-h-0"
    >
      <button
        type="button"
        onClick={onUnfold}
        aria-expanded={false}
        title="Unfold Why (W)"
        className="flex-1 min-h-0 w-full flex flex-col items-center gap-2.5 py-3 cursor-pointer hover:bg-card overflow-hidden"
      >
        <span aria-hidden className="text-soft">
          ‹
        </span>
        <span className="[writing-mode:vertical-rl] flex gap-3 whitespace-nowrap min-h-0">
          <strong className="font-title">Why</strong>
          {why && (
            <>
              <span className="text-soft truncate">
                <bdi>{why.source_name}</bdi> → <bdi>{why.listener_name}</bdi>
              </span>
              <span className={heard ? "text-sea font-semibold" : "text-coral"}>{level}</span>
            </>
          )}
        </span>
      </button>
    </aside>
  );
}
