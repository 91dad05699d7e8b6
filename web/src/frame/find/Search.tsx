import { useEffect, useEffectEvent, useId, useRef, useState } from "react";
import { useLocation } from "wouter";
import { sceneText } from "../../data/scenes";
import type { ShowState } from "../../data/show";
import type { Preview } from "../../data/types";
import { stripName, useLink, useShow } from "../../data/use";
import { usePreview } from "../../ui/Consequence";
import { Answers } from "./Answers";
import { doHere, type Opens } from "./here";
import { Looked } from "./Looked";
import { goTo, takesGain } from "./routes";
import { type Hit, useFound } from "./useFound";
import { keepWish, wishesBefore } from "./wishes";

interface Done {
  /** It leads elsewhere: the hand does not come back to where it was. */
  leads: boolean;
  toGain: boolean;
}

interface Props {
  view: string;
  opens: Opens;
  onDone: (how: Done) => void;
}

/** What is typed, what answers it, and what the answer in hand would change. */
export function Search({ view, opens, onDone }: Props) {
  const link = useLink();
  const [, navigate] = useLocation();
  const id = useId();
  const field = useRef<HTMLInputElement>(null);
  const [text, setText] = useState("");
  const [at, setAt] = useState(0);
  const [made, setMade] = useState("");
  const found = useFound(text, view);
  const hits = found.groups.flatMap((group) => group.hits);
  const hit = hits[Math.min(at, hits.length - 1)];
  const shown = usePreview(hit?.ask ?? null);
  const fresh = found.text === text; // else these are the answers to what was typed before
  // a moment in which the answers are still those of shorter words
  const [early, setEarly] = useState(false);

  const take = (one: Hit | undefined, stay = false) => {
    if (!one) return;
    if (one.careful && !isKnown(shown, one, hit)) return; // it is shown first
    keepWish(text);
    if (one.ask) void link.do(one.ask, { quiet: false });
    if (stay && one.ask) {
      setMade(one.title);
      field.current?.select();
      return;
    }
    if (one.here) doHere[one.here](link, opens, view, navigate);
    else if (one.guide) navigate(`/guide?part=${encodeURIComponent(one.guide)}`);
    else if (!one.ask) goTo(one, navigate);
    onDone({ leads: !one.ask && !one.here, toGain: !one.guide && takesGain(one) });
  };
  // Enter before the answers have come is kept: it does what it would have done
  const takeEarly = useEffectEvent(() => {
    setEarly(false);
    take(hits[0]);
  });
  useEffect(() => {
    if (early && fresh && text.trim()) takeEarly();
  }, [early, fresh, text]);
  const type = (typed: string) => {
    setText(typed);
    setAt(0);
    setEarly(false);
    setMade("");
  };
  const offline = useShow((state) => state.status === "lost");
  const count = found.groups.reduce((sum, group) => sum + group.many, 0);
  const nothing = text.trim() !== "" && fresh && hits.length === 0;
  const status = !text.trim()
    ? ""
    : nothing
      ? "nothing"
      : `${count} ${count === 1 ? "answer" : "answers"}`;
  return (
    <div className="flex flex-col min-h-0 h-[min(640px,84dvh)] phone:h-[92dvh]">
      <div className="flex items-center gap-3 shrink-0">
        <input
          ref={field}
          autoFocus
          role="combobox"
          aria-label="Find by name, number or wish"
          aria-expanded={hits.length > 0}
          aria-controls={`${id}-list`}
          aria-activedescendant={hit && fresh ? `${id}-${hits.indexOf(hit)}` : undefined}
          aria-autocomplete="list"
          autoComplete="off"
          spellCheck={false}
          maxLength={120}
          dir="auto"
          placeholder="A name and what to do with it, in any order"
          className="flex-1 min-w-0 h-14 px-3 rounded-xl border border-edge bg-card text-[22px] phone:text-[18px] font-title font-semibold placeholder:font-normal placeholder:text-[16px]"
          value={text}
          onChange={(event) => type(event.currentTarget.value)}
          onKeyDown={(event) => {
            if (event.key === "ArrowDown") setAt(Math.min(at + 1, hits.length - 1));
            else if (event.key === "ArrowUp") setAt(Math.max(at - 1, 0));
            else if (event.key === "Enter" && fresh && text.trim())
              take(hit, event.ctrlKey || event.metaKey);
            else if (event.key === "Enter") setEarly(true);
            else return;
            event.preventDefault();
          }}
        />
        <span
          role="status"
          className="text-faint whitespace-nowrap min-w-20 text-right phone:hidden"
        >
          {status}
        </span>
      </div>
      {offline && (
        <p className="text-coral pt-2 shrink-0" role="status">
          Offline: names only. What changes something is found when the server is back.
        </p>
      )}
      {(found.read.length > 0 || found.instead || made) && (
        <p className="flex flex-wrap items-center gap-2 pt-2 shrink-0 text-[13px]">
          {made && <span className="text-sea">Done: {made}.</span>}
          {found.instead && (
            <span className="text-sun-text">
              Nothing is called “{found.text.trim()}”: found for “{found.instead}”.
            </span>
          )}
          {found.read.length > 0 && <span className="text-faint">Read as</span>}
          {found.read.map(({ text: typed, says }) => (
            <span
              key={typed}
              className="px-2.5 h-7 inline-flex items-center gap-1.5 rounded-lg border border-line"
            >
              <strong>{typed}</strong> <span className="text-soft">{says}</span>
            </span>
          ))}
        </p>
      )}
      <div className="flex-1 min-h-0 pt-2 grid grid-cols-[minmax(0,1.35fr)_minmax(0,1fr)] slim:grid-cols-1 slim:grid-rows-[minmax(0,1fr)_auto] gap-x-4">
        {nothing ? (
          <Nothing words={text.trim()} />
        ) : text.trim() ? (
          <Answers
            id={id}
            groups={found.groups}
            hit={hit}
            onTake={take}
            onLook={(one) => setAt(hits.indexOf(one))}
          />
        ) : (
          <Before
            onTake={(wish) => {
              type(wish);
              field.current?.focus();
            }}
          />
        )}
        {hit && (
          <Looked
            hit={hit}
            shown={shown}
            onTake={() => take(hit)}
            onStay={() => take(hit, true)}
            words={text.trim()}
            onMore={(wish) => {
              type(wish);
              field.current?.focus();
            }}
          />
        )}
      </div>
    </div>
  );
}

/** Whether it was seen what an answer would do. */
const isKnown = (shown: Preview | string | null, one: Hit, hit: Hit | undefined): boolean =>
  one === hit && shown !== null;

function Nothing({ words }: { words: string }) {
  return (
    <div className="p-3 text-soft leading-relaxed">
      <p className="text-paper font-semibold">Nothing is called “{words}”.</p>
      <p>
        Names, numbers (“ch 7”, “mix 3”), sockets (“a14”), views and deeds are found in any order,
        with a value where one is meant: “fiddle -6”, “mute drums”, “recall 12”.
      </p>
    </div>
  );
}

/** Wishes of this show's own names. */
function examples(state: ShowState): string {
  const [channel = 1] = state.channels;
  const [scene] = state.scene_ids;
  const one = stripName(state, `channel/${channel}`).toLowerCase();
  const box = state.desk?.boxes[0];
  const hand = state.dcas[0] ? stripName(state, `dca/${state.dcas[0]}`).toLowerCase() : one;
  return [
    `${one} -6`,
    `mute ${hand}`,
    `who hears ${one}`,
    ...(scene ? [`scene ${sceneText(state, scene).split(" ")[0]}`] : []),
    ...(box ? [`patch ${box.short.toLowerCase()} 4 to 3`] : []),
    "reverb",
  ].join("\n");
}

/** Nothing is typed yet: what was wished before, and what could be. */
function Before({ onTake }: { onTake: (wish: string) => void }) {
  const before = wishesBefore();
  const words = useShow(examples);
  const list = (word: string, wishes: readonly string[]) =>
    wishes.length > 0 && (
      <div className="flex flex-wrap items-center gap-2">
        <span className="text-faint w-24">{word}</span>
        {wishes.map((wish) => (
          <button
            key={wish}
            type="button"
            onClick={() => onTake(wish)}
            className="h-9 coarse:h-11 px-3 rounded-xl bg-card border border-line cursor-pointer hover:bg-raise"
          >
            {wish}
          </button>
        ))}
      </div>
    );
  return (
    <div className="flex flex-col gap-3 p-3">
      {list("Before this", before)}
      {list("For example", words.split("\n"))}
      <p className="text-faint leading-relaxed pl-26 slim:pl-0">
        A name, a number or a socket; a view or a deed by whatever you call it. With a value behind
        it, or before it, it is set: what that would do stands here before it is done.
      </p>
    </div>
  );
}
