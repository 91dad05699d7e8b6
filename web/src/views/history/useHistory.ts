/** The history as far as somebody has read it: it grows at its top while others work. */
import { useEffect, useState } from "react";
import { getHistory } from "../../data/http";
import type { History, PastGesture } from "../../data/types";

/** What is read again at every move waits so long for more to come. */
const CALM_MS = 200;

interface Read {
  wanted: Record<string, string>;
  newest: History;
  /** What was read further down, and the revision to go on before (null: that was all). */
  older: readonly PastGesture[];
  more: number | null;
}

/** The newest page laid over what was read before: nothing twice, and a place in the list is kept. */
export function laidOver(newest: History, read: Read | null): Read["older"] {
  if (!read || newest.more === null) return [];
  const end = newest.gestures.at(-1)?.first ?? newest.more;
  return [...read.newest.gestures, ...read.older].filter((gesture) => gesture.last < end);
}

export function useHistory(
  showId: string,
  wanted: Record<string, string>,
  revision: number | null,
): { read: Read | null; fault: string; again: () => void; further: () => void } {
  const [read, setRead] = useState<Read | null>(null);
  const [fault, setFault] = useState("");
  const [turn, setTurn] = useState(0);
  useEffect(() => {
    let current = true;
    const timer = setTimeout(() => {
      getHistory(showId, wanted).then(
        (newest) => {
          if (!current) return;
          setRead((before) => {
            const same = before?.wanted === wanted ? before : null;
            const older = laidOver(newest, same);
            return { wanted, newest, older, more: older.length ? same!.more : newest.more };
          });
          setFault("");
        },
        (error: Error) => current && setFault(error.message),
      );
    }, CALM_MS);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [showId, wanted, revision, turn]);
  const further = () => {
    const before = read?.more;
    if (!before) return;
    getHistory(showId, { ...wanted, before }).then(
      (page) =>
        setRead((now) => {
          // pressed twice, or asked for something else meanwhile: it has come already, or is not meant
          if (now?.wanted !== wanted || now.more !== before) return now;
          return { ...now, older: [...now.older, ...page.gestures], more: page.more };
        }),
      (error: Error) => setFault(error.message),
    );
  };
  return { read, fault, again: () => setTurn((before) => before + 1), further };
}
