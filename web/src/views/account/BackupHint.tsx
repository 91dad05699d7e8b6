import { useEffect, useState } from "react";
import { Link } from "wouter";
import { getBackups } from "../../data/http";
import type { Backups } from "../../data/types";
import { useShow } from "../../data/use";

/** Why an evening could not be had back; "": it could, or no night has come yet. */
export function lacking(now: Pick<Backups, "standing" | "failed">): string {
  if (now.failed) return "The last backup failed.";
  return now.standing === "late" ? "The last backup is more than a night old." : "";
}

/** For administrators, where they come by each day: that something is wrong with the backups. */
export function BackupHint() {
  const asked = useShow((state) => state.me?.administrator ?? false);
  const [says, setSays] = useState("");
  useEffect(() => {
    // what cannot be had here is told on their page
    if (asked)
      void getBackups().then(
        (now) => setSays(lacking(now)),
        () => undefined,
      );
  }, [asked]);
  if (!says) return null;
  return (
    <p data-backup-hint className="text-coral pb-2">
      {says}{" "}
      <Link href="/backups" className="underline">
        See Backups
      </Link>
    </p>
  );
}
