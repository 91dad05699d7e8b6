import { useCallback, useEffect, useState } from "react";
import { getBackups, makeBackup } from "../../data/http";
import type { Backups } from "../../data/types";
import { whenText } from "../../data/words";
import { ViewHead } from "../../frame/ViewHead";
import { Button } from "../../ui/Button";

const LOOK_MS = 1_000;

const WHY: Record<Backups["backups"][number]["reason"], string> = {
  night: "by night",
  hand: "by hand",
  migration: "before an update",
  restore: "before a restore",
};

const many = (count: number, one: string): string => `${count} ${count === 1 ? one : `${one}s`}`;

const dayAndTime = (at: string): string => {
  const said = whenText(at);
  return /^\d+:\d+/.test(said) ? `today, ${said}` : said;
};

/** As people say it: 812 KB, 4.1 MB. */
export function bytesText(bytes: number): string {
  if (bytes < 1_000) return `${bytes} bytes`;
  if (bytes < 1_000_000) return `${Math.round(bytes / 1_000)} KB`;
  return `${(bytes / 1_000_000).toFixed(1)} MB`;
}

/** Whether the evening could be had back, and by which copy: for administrators. */
export function BackupsView() {
  const [now, setNow] = useState<Backups | null>(null);
  const [fault, setFault] = useState("");
  const take = useCallback(
    (asked: Promise<Backups>) =>
      asked.then(
        (told) => {
          setFault("");
          setNow(told);
        },
        (error: Error) => setFault(error.message),
      ),
    [],
  );
  useEffect(() => void take(getBackups()), [take]);
  const running = now?.running ?? false;
  useEffect(() => {
    if (!running) return;
    const timer = setInterval(() => void take(getBackups()), LOOK_MS);
    return () => clearInterval(timer);
  }, [running, take]);
  return (
    <>
      <ViewHead title="Backups">
        {now && (
          <Button className="ml-auto" disabled={running} onClick={() => void take(makeBackup())}>
            {running ? "Making one…" : "Make one now"}
          </Button>
        )}
      </ViewHead>
      {fault && (
        <p role="alert" className="text-coral pb-2">
          {fault}
        </p>
      )}
      {now && <Standing now={now} />}
      {now && (
        <div className="scrolls flex-1 min-h-0" tabIndex={0} role="region" aria-label="All backups">
          <ul className="flex flex-col gap-1.5">
            {now.backups.map((one) => (
              <li
                key={one.name}
                data-backup={one.name}
                className="flex items-center gap-x-5 gap-y-0.5 flex-wrap min-h-12 rounded-xl border border-line bg-floor px-3 py-1.5"
              >
                <span className="w-44 font-semibold">{whenText(one.made_at)}</span>
                <span className="w-40 text-soft">{WHY[one.reason]}</span>
                <span className="flex-1 min-w-64 text-soft">
                  {many(one.shows, "show")} · {many(one.changes, "change")} ·{" "}
                  {many(one.accounts, "person").replace("persons", "people")}
                </span>
                <span className="text-faint text-[13px] tabular-nums">{bytesText(one.size)}</span>
                <span className="w-full text-faint text-[13px] select-all break-all">
                  {one.name}.dump
                </span>
              </li>
            ))}
          </ul>
        </div>
      )}
    </>
  );
}

/** The one answer: when the last good one was, and what is wrong about it. */
function Standing({ now }: { now: Backups }) {
  const last = now.backups[0];
  const good = now.standing === "good" && !now.failed;
  return (
    <section
      aria-label="The last good one"
      data-standing={now.standing}
      className={`rounded-2xl border px-4 py-3 mb-3 max-w-[720px] shrink-0 ${good ? "border-sea" : "border-coral"}`}
    >
      <p aria-live="polite" className="text-[18px] font-semibold">
        {last
          ? `The last good one: ${dayAndTime(last.made_at)}`
          : "There is no backup yet: make one now."}
      </p>
      {now.standing === "late" && (
        <p className="text-coral">That is more than a night ago: make one now, and see why.</p>
      )}
      {now.failed && (
        <p role="alert" className="text-coral break-words">
          The last try failed{now.failed_at ? ` (${whenText(now.failed_at)})` : ""}: {now.failed}
        </p>
      )}
      <p className="text-soft pt-1">
        {now.at
          ? `Each night at ${now.at} one is made, read back and compared`
          : "This server makes none by night: OMBREL_BACKUP_AT says so"}
        {now.next ? `; the next ${whenText(now.next)}.` : "."} Kept: seven nights, five weeks,
        twelve months.
      </p>
      <p className="text-faint text-[13px] pt-1 break-words">
        In {now.folder}
        {now.same_disk && ", on the same disk as the data: name another in OMBREL_BACKUPS"}. Put
        back by bin/restore, with the server stopped.
      </p>
    </section>
  );
}
