import { useState } from "react";
import type { PhoneLink, State } from "./link";

const WORDS = ["more of my own sound", "too loud", "nothing here", "talk to me"] as const;

/** Call the desk in one of a few words, or one's own; it stands there until somebody has seen it. */
export function CallDesk({ mix, state, link }: { mix: string; state: State; link: PhoneLink }) {
  const [open, setOpen] = useState(false);
  const [own, setOwn] = useState("");
  const { called } = state;
  const call = (text: string) => {
    link.call(mix, text);
    setOpen(false);
    setOwn("");
  };
  return (
    <>
      {called && !open && (
        <p role="status" className="text-[14px] text-soft px-1 break-words">
          {called.seen ? (
            <>
              <strong className="text-sea">The desk has seen it</strong>: “{called.text}”
            </>
          ) : (
            <>
              <strong className="text-sun-text">Calling the desk</strong>: “{called.text}”
            </>
          )}
        </p>
      )}
      {open && (
        <section aria-label="Call the desk" className="flex flex-wrap gap-2">
          {WORDS.map((word) => (
            <button
              key={word}
              type="button"
              onClick={() => call(word)}
              className="h-12 flex-1 min-w-[45%] rounded-xl bg-raise text-[15px]"
            >
              {word}
            </button>
          ))}
          <form
            className="basis-full flex gap-2"
            onSubmit={(event) => {
              event.preventDefault();
              if (own.trim()) call(own.trim());
            }}
          >
            <input
              aria-label="Your own words"
              placeholder="your own words"
              maxLength={80}
              value={own}
              onChange={(event) => setOwn(event.currentTarget.value)}
              className="flex-1 min-w-0 h-12 px-3 rounded-xl bg-card border border-edge text-[16px]"
            />
            <button
              type="submit"
              disabled={!own.trim()}
              className="h-12 px-5 rounded-xl bg-sun text-on-sun font-semibold disabled:opacity-50"
            >
              Call
            </button>
          </form>
        </section>
      )}
      <button
        type="button"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
        className={`h-12 w-full rounded-xl text-[16px] font-semibold ${open ? "bg-raise" : "bg-sun text-on-sun"}`}
      >
        {open ? "Do not call" : "Call the desk"}
      </button>
    </>
  );
}
