import { useEffect, useState } from "react";
import type { Status } from "./link";

const STATUS = {
  connecting: ["bg-faint", "looking for the desk"],
  live: ["bg-sea", "with the desk"],
  away: ["bg-coral", "no network: moves wait"],
  ended: ["bg-coral", "ended"],
} as const;

/** How a page in the hand stands with the desk, and the key for bright surroundings. `kept`: where
 * the page remembers that it was pressed. */
export function Standing({
  status,
  waiting,
  kept,
}: {
  status: Status;
  waiting: number;
  kept: string;
}) {
  const [day, setDay] = useState(() => localStorage.getItem(kept) === "1");
  useEffect(() => {
    document.documentElement.dataset.theme = day ? "daylight" : "dusk";
    localStorage.setItem(kept, day ? "1" : "0");
  }, [day, kept]);
  const [dot, says] = STATUS[status];
  return (
    <>
      <button
        type="button"
        aria-pressed={day}
        onClick={() => setDay(!day)}
        className="h-11 px-2 rounded-xl text-[13px] text-soft"
      >
        by day
      </button>
      <span
        role="status"
        data-status={status}
        data-waiting={waiting}
        className="flex items-center gap-1.5 text-[13px] text-soft text-right"
      >
        <span aria-hidden className={`w-2.5 h-2.5 rounded-full shrink-0 ${dot}`} />
        {says}
        {status !== "live" && waiting > 0 && ` (${waiting})`}
      </span>
    </>
  );
}
