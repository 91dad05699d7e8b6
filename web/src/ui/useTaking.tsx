import { type ReactNode, useState } from "react";
import type { Ask } from "../data/types";
import { useLink } from "../data/use";
import { Taking } from "./Taking";

/**
 * Make an edit at once if nobody loses anything by it, no two come to share a preamp and no 48 V is
 * switched; else show first whom it meets, to be taken or left.
 * Whether it was made or is shown now. `mine`: who may lose something without being asked, since they are being given something else.
 */
export function useTaking(): {
  ask: (ask: Ask, mine?: string) => Promise<boolean>;
  bar: ReactNode;
} {
  const link = useLink();
  const [taking, setTaking] = useState<Ask | null>(null);
  const ask = async (wanted: Ask, mine = "") => {
    const shown = await link.try(wanted, { before: true });
    // a refusal is told by making the edit: the server says why
    const lost = typeof shown === "string" ? [] : shown.losses.filter((loss) => loss.who !== mine);
    const met = typeof shown === "string" ? 0 : shown.shares.length + shown.powered.length;
    if (lost.length === 0 && !met) return link.do(wanted);
    setTaking(wanted);
    return true;
  };
  return {
    ask,
    bar: taking && <Taking ask={taking} onDone={() => setTaking(null)} />,
  };
}
