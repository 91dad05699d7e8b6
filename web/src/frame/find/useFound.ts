import { useEffect, useMemo, useState } from "react";
import { store } from "../../data/show";
import type { Found, FoundAnswer } from "../../data/types";
import { useLink, useShow } from "../../data/use";
import { type GuidePart, guideParts } from "../../views/guide/parts";
import { ownWordsLike } from "../ownWords";
import { namesLike } from "./names";

/** What Find draws: a group's answers under its word. */
export interface Group {
  key: string;
  word: string;
  many: number;
  hits: Hit[];
}

export interface Hit extends FoundAnswer {
  /** A part of the guide, by its title. */
  guide?: string;
}

interface Answers {
  /** For which words these are; others may be typed by now. */
  text: string;
  instead: string;
  read: Found["read"];
  groups: Group[];
}

const WORD: Record<string, string> = {
  change: "Change",
  go: "Go there",
  hears: "Who hears it",
  do: "Do",
};
const NOTHING: Answers = { text: "", instead: "", read: [], groups: [] };
const MOST_OF_GUIDE = 3;

/** What answers the words that are typed, as the core reads them; offline the names that are known here. */
export function useFound(text: string, view: string): Answers {
  const link = useLink();
  const live = useShow((state) => state.status === "live");
  // found again when something moved meanwhile, or the show has only just come
  const revision = useShow((state) => state.revision);
  const patched = useShow((state) => state.patched);
  const names = useMemo(
    () => (live ? null : namesLike(store.getState(), text)),
    [live, text, patched],
  );
  const [found, setFound] = useState<Found | null>(null);
  const [guide, setGuide] = useState<readonly GuidePart[]>([]);
  useEffect(() => {
    void guideParts().then(setGuide);
  }, []);
  const wish = text.trim();
  useEffect(() => {
    if (!wish || !live || revision === null) return;
    let over = false;
    void link.find(text.slice(0, 120), view).then((answer) => {
      if (answer && !over) setFound(answer);
    });
    return () => {
      over = true;
    };
  }, [link, wish, text, view, live, revision]);
  if (!wish) return NOTHING;
  const parts = guideHits(guide, wish);
  if (names !== null) return { ...NOTHING, text, groups: grouped(names, {}, parts) };
  if (!found) return NOTHING;
  const { instead, read, answers, many } = found;
  return { text: found.text, instead, read, groups: grouped(answers, many, parts) };
}

function grouped(answers: readonly Hit[], many: Record<string, number>, parts: Hit[]): Group[] {
  const keys = [...new Set(answers.map((one) => one.group))];
  const groups = keys.map((key) => {
    const hits = answers.filter((one) => one.group === key);
    return { key: key as string, word: WORD[key]!, many: many[key] ?? hits.length, hits };
  });
  if (parts.length > 0)
    groups.push({ key: "guide", word: "Guide", many: parts.length, hits: parts });
  return groups;
}

/** Our own words, and parts of the guide whose title has what is typed, or a word of it. */
function guideHits(guide: readonly GuidePart[], wish: string): Hit[] {
  const words = wish.toLowerCase().split(/\s+/);
  const parts = guide.filter(({ title }) => {
    const said = title.toLowerCase().split(/\W+/);
    return words.some((word) => word.length > 2 && said.some((one) => one.startsWith(word)));
  });
  return [
    ...ownWordsLike(wish).map(({ word, says, guide: part }) => inGuide(word, says, part)),
    ...parts.map(({ title }) => inGuide(title, "in the guide", title)),
  ].slice(0, MOST_OF_GUIDE);
}

const inGuide = (title: string, about: string, guide: string): Hit => ({
  group: "go",
  title,
  about,
  view: "guide",
  at: "",
  beside: "",
  ask: null,
  here: null,
  careful: false,
  guide,
});
