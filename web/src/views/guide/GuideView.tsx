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
    if (start) lead(scroller.current, start);
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
      <div className="flex gap-6 flex-1 min-h-0 short:min-h-72">
        <nav aria-label="Contents" className="slim:hidden scrolls w-44 shrink-0 pb-4">
          <ul>
            {shown.map((one) => (
              <li key={one.title}>
                <button
                  type="button"
                  onClick={() => lead(scroller.current, one.title)}
                  className="w-full min-h-8 coarse:min-h-11 text-left text-soft hover:text-paper cursor-pointer"
                >
                  {one.title}
                </button>
              </li>
            ))}
          </ul>
        </nav>
        <div
          ref={scroller}
          className="scrolls flex-1 min-w-0"
          tabIndex={0}
          role="region"
          aria-label="The guide"
        >
          {shown.map((one) => (
            <section key={one.title} className="guide max-w-[72ch] pb-5">
              <h2 className="font-title text-xl font-bold pb-1">{one.title}</h2>
              <Markdown components={{ img: Picture }}>{one.text}</Markdown>
            </section>
          ))}
        </div>
      </div>
    </>
  );
}

/** Brings a part into sight. */
function lead(all: HTMLElement | null, title: string): void {
  [...(all?.querySelectorAll("h2") ?? [])]
    .find((head) => head.textContent === title)
    ?.scrollIntoView();
}

const PICTURES = import.meta.glob<string>("../../../../docs/screenshots/*.png", {
  query: "?url",
  import: "default",
  eager: true,
});

/** A picture of the guide: it ships with the application. */
function Picture({ src, alt }: { src?: string; alt?: string }) {
  const found = src && PICTURES[`../../../../docs/${src}`];
  return (
    <img
      src={found}
      alt={alt}
      loading="lazy"
      className="rounded-xl border border-line my-2 w-full max-w-[900px]"
    />
  );
}
