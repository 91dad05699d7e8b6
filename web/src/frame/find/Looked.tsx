import type { Preview } from "../../data/types";
import { cellText } from "../../data/words";
import { Button } from "../../ui/Button";
import { Told } from "../../ui/Consequence";
import type { Hit } from "./useFound";

interface Props {
  hit: Hit;
  shown: Preview | string | null;
  onTake: () => void;
  onStay: () => void;
  /** What is typed, and what could be typed for it. */
  words: string;
  onMore: (words: string) => void;
}

/** What else can be wished of what is found. */
function More({ words, onMore }: Pick<Props, "words" | "onMore">) {
  return (
    <div className="pt-3 slim:hidden">
      <p className="text-faint text-[13px] pb-1">Or say what to do with it</p>
      {[`${words} -6`, `${words} up 2`, `mute ${words}`, `who hears ${words}`].map((wish) => (
        <button
          dir="auto"
          key={wish}
          type="button"
          tabIndex={-1}
          onClick={() => onMore(wish)}
          className="mr-2 mb-2 h-9 px-3 rounded-xl bg-card border border-line cursor-pointer hover:bg-raise max-w-full truncate"
        >
          {wish}
        </button>
      ))}
    </div>
  );
}

/** What the answer in hand would do: for whom levels change, and all that an edit says beforehand. */
export function Looked({ hit, shown, onTake, onStay, words, onMore }: Props) {
  const known = typeof shown === "object" ? shown : null;
  const can = typeof shown !== "string" && known?.changes !== 0;
  return (
    <div
      role="region"
      aria-label="What it would do"
      className="min-h-0 flex flex-col border-l border-line pl-4 slim:border-l-0 slim:border-t slim:pl-0 slim:pt-2 slim:max-h-[40dvh]"
    >
      <p className="text-faint text-[13px] slim:hidden">
        {hit.ask ? "What Enter would change" : hit.here ? "What Enter does" : "Where Enter leads"}
      </p>
      <p className="font-title text-xl font-bold break-words slim:text-base" dir="auto">
        {hit.title}
      </p>
      {hit.about && <p className="text-soft pb-2 slim:pb-0">{hit.about}</p>}
      {hit.at && !hit.ask && <More words={words} onMore={onMore} />}
      {hit.ask && (
        <>
          <div
            role="region"
            aria-label="For whom what changes"
            // it scrolls, and holds no control to scroll by
            tabIndex={0}
            className="scrolls flex-1 min-h-0 pr-2"
          >
            {known && <ForWhom heard={known.heard} />}
            <Told shown={shown} values />
          </div>
          <div className="flex flex-wrap gap-2 pt-2 shrink-0">
            <Button tone="main" disabled={!can} onClick={onTake}>
              Do it
            </Button>
            <Button disabled={!can} title="Ctrl+Enter" onClick={onStay}>
              Do it and stay here
            </Button>
          </div>
        </>
      )}
    </div>
  );
}

const FLOOR_DB = -60;

/** As long as a level is above −60 dB. */
const share = (db: number | null): number =>
  db === null ? 0 : Math.min(1, Math.max(0, (db - FLOOR_DB) / (10 - FLOOR_DB)));

/** For each listener, what of the source they hear now and would then. */
function ForWhom({ heard }: { heard: Preview["heard"] }) {
  const sources = new Set(heard.map((one) => one.source));
  if (heard.length === 0) return null;
  return (
    <table className="w-full mb-2">
      <caption className="text-left text-faint text-[13px]">For whom</caption>
      <tbody>
        {heard.map(({ source, listener, was_db, now_db }) => (
          <tr key={`${source} ${listener}`}>
            <th
              scope="row"
              className="text-left font-normal py-0.5 pr-2 max-w-40 truncate"
              dir="auto"
            >
              {sources.size > 1 ? `${source} → ${listener}` : listener}
            </th>
            <td className="w-[30%] slim:hidden" aria-hidden>
              <span className="block h-2.5 rounded bg-card overflow-hidden relative">
                <span
                  className="absolute inset-y-0 left-0 bg-sea/40"
                  style={{ width: `${100 * Math.max(share(was_db), share(now_db))}%` }}
                />
                <span
                  className="absolute inset-y-0 left-0 bg-sea"
                  style={{ width: `${100 * Math.min(share(was_db), share(now_db))}%` }}
                />
              </span>
            </td>
            <td className="text-right pl-2 whitespace-nowrap">
              <span className="text-soft">{cellText(was_db)} →</span>{" "}
              <strong className={now_db === null ? "text-coral" : ""}>{cellText(now_db)}</strong>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
