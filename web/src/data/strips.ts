/** Every strip in use, in the order of the desk. */

import { useMemo } from "react";
import { stripKind } from "./address";
import { useShow } from "./use";

export function useStrips(): readonly string[] {
  const channels = useShow((state) => state.channels);
  const returns = useShow((state) => state.returns);
  const groups = useShow((state) => state.groups);
  const mixes = useShow((state) => state.mixes);
  const matrices = useShow((state) => state.matrices);
  return useMemo(
    () => [
      ...channels.map((n) => `channel/${n}`),
      ...returns.map((n) => `return/${n}`),
      ...groups.map((n) => `group/${n}`),
      ...mixes.map((n) => `mix/${n}`),
      "house",
      "mono",
      ...matrices.map((n) => `matrix/${n}`),
    ],
    [channels, returns, groups, mixes, matrices],
  );
}

/** Where a strip is looked at from top to bottom; "" for what has no such view. */
export const stripPath = (strip: string): string => (stripKind(strip) ? `/strip/${strip}` : "");
