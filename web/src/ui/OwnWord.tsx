import type { ReactNode } from "react";
import { OWN_WORDS } from "../frame/ownWords";
import { Explained } from "./Explained";

/** One of our own words, wherever it stands: pressed, it says what it means. */
export function OwnWord({ word, children }: { word: string; children?: ReactNode }) {
  const told = OWN_WORDS.get(word.toLowerCase());
  if (!told) return <>{children ?? word}</>;
  return (
    <Explained
      trigger={children ?? told.word}
      title={told.says}
      guide={`/guide?part=${encodeURIComponent(told.guide)}`}
      className="inline-flex items-center min-h-6 coarse:min-h-11 cursor-help underline decoration-dotted decoration-edge underline-offset-4 hover:text-paper"
    >
      <p className="font-semibold">{told.word}</p>
      <p>{told.says}</p>
    </Explained>
  );
}
