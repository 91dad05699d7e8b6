/** Shares of who shares one gain, as they are measured: now, and over the last minute. */
import type { ShareNow, SharesOf } from "./types";

/** So many parts the last minute has. */
export const SLOTS = 120;

export interface Shares {
  /** Each group now; empty where nothing is measured. */
  groups: ReadonlyMap<string, SharesOf>;
  /** Groups that the stage lets talk. */
  talking: readonly string[];
  /** The last minute, the oldest first: shares in power by strip. `slot`: of the last. */
  minute: readonly Readonly<Record<string, number>>[];
  slot: number;
}

export const NO_SHARES: Shares = { groups: new Map(), talking: [], minute: [], slot: 0 };

/** The shares after the server told them: a part of the minute that nobody saw is empty. */
export function withShares(
  before: Shares,
  { groups, slot, talking }: { groups: SharesOf[]; slot: number; talking: string[] },
): Shares {
  const now = new Map(groups.map((group) => [group.group, group]));
  if (slot === before.slot) return { ...before, groups: now, talking };
  const missed = before.slot ? Math.min(SLOTS, slot - before.slot - 1) : 0;
  const gap = Array.from({ length: Math.max(0, missed) }, () => ({}));
  const shares = groups.flatMap((group) => group.members.map(shareOf)).filter(([, one]) => one > 0);
  const minute = [...before.minute, ...gap, Object.fromEntries(shares)].slice(-SLOTS);
  return { groups: now, talking, minute, slot };
}

const shareOf = ({ strip, share }: ShareNow): [string, number] => [strip, share];
