import { Popover } from "radix-ui";
import type { ReactNode } from "react";
import { Link as RouteLink } from "wouter";
import { OWN_WORDS } from "../frame/ownWords";

/** One of our own words, wherever it stands: pressed, it says what it means. */
export function OwnWord({ word, children }: { word: string; children?: ReactNode }) {
  const told = OWN_WORDS.get(word.toLowerCase());
  if (!told) return <>{children ?? word}</>;
  return (
    <Popover.Root>
      <Popover.Trigger
        // no stop of its own: ? tells the words of a view too
        tabIndex={-1}
        title={told.says}
        className="inline-flex items-center min-h-6 coarse:min-h-11 cursor-help underline decoration-dotted decoration-edge underline-offset-4 hover:text-paper"
      >
        {children ?? told.word}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={6}
          collisionPadding={12}
          className="z-50 max-w-80 rounded-2xl border border-edge bg-floor p-4 shadow-2xl leading-relaxed"
        >
          <p className="font-semibold">{told.word}</p>
          <p>{told.says}</p>
          <RouteLink
            to={`/guide?part=${encodeURIComponent(told.guide)}`}
            className="mt-2 h-9 inline-flex items-center text-sun-text underline"
          >
            Read on in the guide
          </RouteLink>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
