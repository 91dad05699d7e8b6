import { type ReactNode, useEffect, useState } from "react";
import type { Ask, Preview } from "../data/types";
import { stripName, useLink, useShow } from "../data/use";
import { cellText, inSentence, levelText } from "../data/words";
import { Waiting } from "./Waiting";

/**
 * What the core says an edit would do, asked again whenever the edit or the show changes. `known`: what
 * it has said already; `most`: how many of the values that move it is to tell.
 */
export function usePreview(
  ask: Ask | null,
  known: Preview | null = null,
  most?: number,
): Preview | string | null {
  const link = useLink();
  const revision = useShow((state) => state.revision);
  const [shown, setShown] = useState<Preview | string | null>(known);
  useEffect(() => {
    if (!ask) {
      setShown(null);
      return;
    }
    const asking = new AbortController();
    const timer = setTimeout(() => {
      void link.try(ask, { signal: asking.signal, most }).then(setShown);
    }, 120);
    return () => {
      asking.abort();
      clearTimeout(timer);
    };
  }, [link, ask, revision, most]);
  return shown;
}

function names(pairs: readonly (readonly [string, string])[]): string {
  const only = pairs[0]?.[1];
  if (pairs.length > 1 && pairs.every(([, listener]) => listener === only)) {
    const sources = pairs.map(([source]) => source);
    const more = sources.length > 5 ? ` and ${sources.length - 4} more` : "";
    return `${sources.slice(0, more ? 4 : 5).join(", ")}${more}, for ${only}`;
  }
  const bySource = new Map<string, string[]>();
  for (const [source, listener] of pairs)
    bySource.set(source, [...(bySource.get(source) ?? []), listener]);
  const parts = [...bySource].map(([source, listeners]) =>
    listeners.length > 3
      ? `${source} for ${listeners.slice(0, 2).join(", ")} and ${listeners.length - 2} more`
      : `${source} for ${listeners.join(", ")}`,
  );
  return parts.length > 4
    ? `${parts.slice(0, 4).join("; ")}; and ${parts.length - 4} more`
    : parts.join("; ");
}

/** Where strips join or leave DCAs: whose true level jumps, and whether that can be made up for. */
function Jumps({ compensation }: { compensation: NonNullable<Preview["compensation"]> }) {
  const words = useShow((state) =>
    compensation.jumps
      .slice(0, 6)
      .map(([strip, from, to]) => `${stripName(state, strip)} ${cellText(from)} → ${cellText(to)}`)
      .join(", "),
  );
  const more = compensation.jumps.length - 6;
  return (
    <>
      {words && (
        <p>
          <strong className="text-sun-text">Jumps:</strong> {words}
          {more > 0 && ` and ${more} more`}
        </p>
      )}
      {compensation.silenced.length > 0 && (
        <p className="text-coral">Muted with it: {compensation.silenced.join(", ")}</p>
      )}
      {compensation.lacking.length > 0 && (
        <p className="text-soft">
          Levels cannot be kept:{" "}
          {compensation.lacking
            .map(([name, at]) => (at === null ? name : `${name} would need ${levelText(at)} dB`))
            .join(", ")}
        </p>
      )}
    </>
  );
}

/** What moves, strip by strip. */
function Moving({ shown }: { shown: Preview }) {
  const byStrip = new Map<string, string[]>();
  for (const one of shown.values)
    byStrip.set(one.whose, [
      ...(byStrip.get(one.whose) ?? []),
      `${inSentence(one.what)} ${one.was} → ${one.now}`,
    ]);
  const more = shown.changes - shown.values.length;
  return (
    <>
      {[...byStrip].map(([whose, moves]) => (
        <p key={whose}>
          <strong>{whose}:</strong> {moves.join(", ")}
        </p>
      ))}
      {more > 0 && <p className="text-soft">and {more} values more</p>}
    </>
  );
}

/** Strips that get other numbers: everything that says their names goes with them. */
function Renumbering({ shown }: { shown: Preview }) {
  return (
    <div
      className="rounded-xl border border-line bg-floor px-3 py-2 mb-2 shrink-0 max-h-64 scrolls"
      role="status"
      data-testid="consequence"
    >
      <p className="text-soft">{shown.says}</p>
      <ul className="columns-2 phone:columns-1 gap-6">
        {shown.renumbered.map(([name, from, to]) => (
          <li key={from} className="flex gap-2">
            <bdi className="flex-1 min-w-0 truncate">{name}</bdi>
            <span className="whitespace-nowrap">
              {from} → <strong>{to}</strong>
            </span>
          </li>
        ))}
      </ul>
      <p className="text-sea">
        Sends, scenes, banks, promises, parts and settings kept for performers go along.
      </p>
    </div>
  );
}

interface ConsequenceProps {
  ask: Ask | null;
  /** The edit's own words are shown too. */
  words?: boolean;
  /** The first of the values that move are shown too, or so many of them. */
  values?: boolean | number;
  children?: ReactNode;
}

/** Before an edit is made: who loses what, and who falls silent. Without one: what to do here. */
export function Consequence({ ask, children, ...how }: ConsequenceProps) {
  const shown = usePreview(ask, null, typeof how.values === "number" ? how.values : undefined);
  if (!ask) return <p className="text-faint text-[13px] pb-2 shrink-0">{children}</p>;
  return <Told shown={shown} {...how} />;
}

interface ToldProps extends Pick<ConsequenceProps, "words" | "values"> {
  shown: ReturnType<typeof usePreview>;
}

/** What an edit would do, as `usePreview` has it: for who needs it for more than its words. */
export function Told({ shown, words, values }: ToldProps) {
  const offline = useShow((state) => state.status === "lost");
  if (offline)
    return (
      <p className="text-coral pb-2" role="status">
        Offline: what it would do is told when the server is back. Taken now, it is made then.
      </p>
    );
  if (!shown) return <Waiting className="pb-2" />;
  if (typeof shown === "string")
    return (
      <p className="text-coral pb-2" role="alert">
        {shown}
      </p>
    );
  if (shown.renumbered.length > 0) return <Renumbering shown={shown} />;
  const height =
    shown.pairs.length > 0
      ? "max-h-80 scrolls"
      : !values
        ? "max-h-32 scrolls"
        : values === true
          ? ""
          : "max-h-64 scrolls";
  return (
    <div
      className={`rounded-xl border border-line bg-floor px-3 py-2 mb-2 shrink-0 ${height}`}
      role="status"
      data-testid="consequence"
      tabIndex={values && values !== true ? 0 : undefined}
    >
      {values && <Moving shown={shown} />}
      {words && shown.says && <p className="text-soft">{shown.says}</p>}
      {shown.changes === 0 && <p className="text-soft">It stands so already: nothing to change.</p>}
      {shown.breaks.map((says) => (
        <p key={says} className="text-coral">
          <strong>Breaks a promise.</strong> {says}
        </p>
      ))}
      {shown.leaving.map(([name, becomes]) => (
        <p key={name}>
          <strong>{name}</strong> leaves the list. {becomes}
        </p>
      ))}
      {shown.compensation && <Jumps compensation={shown.compensation} />}
      {shown.pairs.map((pair) => (
        <div key={pair.odd} className="pb-0.5">
          <strong className="text-iris">{pair.name}</strong>
          {pair.says.length === 0 && <span className="text-soft"> are alike already</span>}
          {pair.says.map((says) => (
            <p key={says} className="pl-4">
              {says}
            </p>
          ))}
        </div>
      ))}
      {shown.following > 0 && (
        <p>
          <strong className="text-iris">With it:</strong>{" "}
          {shown.follows
            .map((one) => `${one.whose} ${inSentence(one.what)} ${one.was} → ${one.now}`)
            .join(", ")}
          {shown.following > shown.follows.length &&
            ` and ${shown.following - shown.follows.length} more`}
        </p>
      )}
      {shown.told.map((says) => (
        <p key={says} className="text-sun-text">
          {says}
        </p>
      ))}
      {shown.losses.map((loss, index) => (
        <p key={index}>
          <strong className="text-coral">{loss.who}</strong> loses {loss.loses}
          {loss.to !== "nothing" && <span className="text-soft"> ({loss.to})</span>}
        </p>
      ))}
      {shown.shares.map((says) => (
        <p key={says} className="text-sun-text">
          {says}
        </p>
      ))}
      {shown.powered.map((says) => (
        <p key={says} className="text-sun-text">
          {says}
        </p>
      ))}
      {shown.silenced.length > 0 && (
        <p className="text-coral">Falls silent: {names(shown.silenced)}</p>
      )}
      {shown.opened.length > 0 && <p className="text-sea">Becomes heard: {names(shown.opened)}</p>}
      {shown.moved > 0 && (
        <p className="text-soft">
          {shown.moved === 1 ? "1 other level moves." : `${shown.moved} other levels move.`}
        </p>
      )}
      {shown.changes > 0 &&
        shown.losses.length + shown.silenced.length + shown.powered.length === 0 && (
          <p className="text-sea">Nobody loses anything.</p>
        )}
    </div>
  );
}
