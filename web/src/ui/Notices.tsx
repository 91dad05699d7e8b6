import { useEffect } from "react";
import { dismiss, type Notice } from "../data/show";
import { useShow } from "../data/use";

const SEEN_MS = 3500;

interface Props {
  /** Opens the list of all that was told; where there is none to open, the words only stand. */
  onAll?: () => void;
  /** Only what was told from then on, in ms since 1970. */
  since?: number;
}

/**
 * What was done, or why it was refused: in a place of its own, over nothing. What was done goes by
 * itself once it was seen; a refusal stays until somebody takes it away or is refused again.
 */
export function Notices({ onAll, since = 0 }: Props) {
  const all = useShow((state) => state.notices);
  const notices = all.filter((one) => one.at >= since);
  const refused = notices.findLast((one) => one.tone === "refused");
  const said = notices.findLast((one) => one.tone === "said");
  const shown = [refused, said].filter((one) => one !== undefined);
  return (
    <div aria-label="Notices" role="region" className="min-w-0 flex flex-col gap-1 empty:hidden">
      <div role="status" className="sr-only">
        {said?.text}
      </div>
      {shown.map((notice) => (
        <One key={notice.id} notice={notice} onAll={onAll} />
      ))}
      {notices
        .filter((one) => one !== refused && one !== said)
        .map((one) => (
          <Passing key={one.id} notice={one} />
        ))}
    </div>
  );
}

/** Takes what was said away, once it was seen. */
function usePassing({ id, tone }: Notice): void {
  useEffect(() => {
    if (tone === "refused") return;
    const timer = setTimeout(() => dismiss(id), SEEN_MS);
    return () => clearTimeout(timer);
  }, [id, tone]);
}

/** One that a newer one hides. */
function Passing({ notice }: { notice: Notice }) {
  usePassing(notice);
  return null;
}

function One({ notice, onAll }: { notice: Notice; onAll?: () => void }) {
  usePassing(notice);
  const refused = notice.tone === "refused";
  const words = (
    <span className="line-clamp-2 break-words" title={notice.text}>
      {refused && <strong className="text-coral mr-1.5">Not done.</strong>}
      {notice.text}
    </span>
  );
  return (
    <div
      data-notice={notice.tone}
      role={refused ? "alert" : undefined}
      className={`min-w-0 flex items-center gap-1 rounded-xl border pl-3 bg-raise text-paper text-[13px] leading-[17px] ${
        refused ? "border-coral" : "border-edge pr-3"
      }`}
    >
      {onAll ? (
        <button
          type="button"
          onClick={onAll}
          className="flex-1 min-w-0 min-h-9 coarse:min-h-11 text-left cursor-pointer"
        >
          {words}
        </button>
      ) : (
        <span className="min-h-9 flex items-center min-w-0">{words}</span>
      )}
      {refused && (
        <button
          type="button"
          aria-label="Take the notice away"
          onClick={() => dismiss(notice.id)}
          className="w-8 h-8 coarse:w-11 coarse:h-11 shrink-0 rounded-lg cursor-pointer text-soft hover:bg-card"
        >
          ✕
        </button>
      )}
    </div>
  );
}
