/** What the key of a mute group closes, told while such keys are drawn. */
import { useEffect } from "react";
import { useLink, useShow } from "./use";

/** Has the cells told that mute keys close, for as long as this is drawn. */
export function useClosing(): void {
  const link = useLink();
  useEffect(() => {
    link.watch({ closing: true });
    return () => link.watch({ closing: false });
  }, [link]);
}

/** How many cells the key of a mute group closes, or holds closed; null before it is told. */
export const useCloses = (group: string): number | null =>
  useShow((state) => state.closing[group] ?? null);
