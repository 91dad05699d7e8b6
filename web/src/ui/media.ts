/** What kind of screen this is. The widths are those of the stylesheet's variants. */

import { useEffect, useState } from "react";

const PHONE = "(width < 700px)";
const NARROWEST = "(width < 360px)";
const SLIM = "(width < 900px)";
const WIDE = "(width >= 1100px)";
const ROOMY = "(width >= 1700px)";
const COARSE = "(pointer: coarse)";

function useMedia(wanted: string): boolean {
  const [is, setIs] = useState(() => matchMedia(wanted).matches);
  useEffect(() => {
    const query = matchMedia(wanted);
    const follow = () => setIs(query.matches);
    follow();
    query.addEventListener("change", follow);
    return () => query.removeEventListener("change", follow);
  }, [wanted]);
  return is;
}

/** A phone, or a page enlarged until it is as narrow as one. */
export const usePhone = (): boolean => useMedia(PHONE);
/** Room for the work list, the work and Why beside one another. */
export const useWide = (): boolean => useMedia(WIDE);
/** Room for both sides of a surface beside one another. */
export const useRoomy = (): boolean => useMedia(ROOMY);
/** Fingers: targets of 44 px. */
export const useCoarse = (): boolean => useMedia(COARSE);

/** Height of a row that is one line on every screen. */
export const useRowHeight = (fine: number): number => (useCoarse() ? 46 : fine);

/** The same of rows that are two lines on a page enlarged fourfold. */
export function useTwoLineHeight(fine: number): number {
  const height = useRowHeight(fine);
  return useMedia(NARROWEST) ? 2 * height : height;
}

/** Height of a row of fields: one line, or two or three where there is no room. */
export function useListHeight(): number {
  const coarse = useCoarse();
  const slim = useMedia(SLIM);
  const lines = useMedia(NARROWEST) ? 3 : slim ? 2 : 1;
  return lines === 1 ? (coarse ? 50 : 34) : lines * (coarse ? 48 : 32) + 2;
}
