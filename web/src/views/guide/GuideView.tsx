import { useEffect, useMemo, useRef, useState } from "react";
import Markdown from "react-markdown";
import { useSearch } from "wouter";
import guide from "../../../../docs/guide.md?raw";
import { hasWords } from "../../data/search";
import { VIEW_WORD } from "../../frame/places";
import { ViewHead } from "../../frame/ViewHead";

import { SearchField } from "../../ui/SearchField";
import { partsOf } from "./parts";

const PARTS = partsOf(guide);

/** The guide, with the application and without a network: it opens at the view one came from. */
export function GuideView() {
  const asked = new URLSearchParams(useSearch());
  const from = asked.get("view") ?? "";
  const part = asked.get("part");
  const [words, setWords] = useState("");
  const shown = useMemo(() => {
    const said = hasWords(words);
    return PARTS.filter((part) => said(`${part.title} ${part.text}`));
  }, [words]);
  const scroller = useRef<HTMLDivElement>(null);
  const start = part ?? VIEW_WORD[from];
  useEffect(() => {
    const at = [...(scroller.current?.querySelectorAll("h2") ?? [])].find(
      (head) => head.textContent === start,
    );
    at?.scrollIntoView();
  }, [start]);
  return (
    <>
      <ViewHead title="Guide">
        <SearchField label="Find in the guide" value={words} onChange={setWords} className="w-56" />
        <span className="text-faint" role="status">
          {words &&
            (shown.length === 0
              ? "Nothing in the guide says that."
              : shown.map((part) => part.title).join(", "))}
        </span>
      </ViewHead>
      <div
        ref={scroller}
        className="scrolls flex-1 min-h-0 short:min-h-72"
        tabIndex={0}
        role="region"
        aria-label="The guide"
      >
        {shown.map((part) => (
          <section key={part.title} className="guide max-w-[72ch] pb-5">
            <h2 className="font-title text-xl font-bold pb-1">{part.title}</h2>
            <Markdown>{part.text}</Markdown>
          </section>
        ))}
      </div>
    </>
  );
}
