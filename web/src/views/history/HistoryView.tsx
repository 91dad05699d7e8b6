import { useMemo, useState } from "react";
import { forgetPoint, keepPoint } from "../../data/http";
import { notify } from "../../data/show";
import type { PastGesture, Point } from "../../data/types";
import { stripName, useShow } from "../../data/use";
import { whenText } from "../../data/words";
import { ViewHead } from "../../frame/ViewHead";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Empty } from "../../ui/Panel";
import { SearchField } from "../../ui/SearchField";
import { sending } from "../../ui/sending";
import { ComparePanel } from "./ComparePanel";
import { useHistory } from "./useHistory";

/** A revision of the show under a name by which people know it. */
export interface Mark {
  revision: number;
  name: string;
}

/** Who changed what and when; points kept; any two compared; and the way back. */
export function HistoryView() {
  const showId = useShow((state) => state.desk!.show.id);
  const revision = useShow((state) => state.revision);
  const [words, setWords] = useState("");
  const [author, setAuthor] = useState("");
  const [strip, setStrip] = useState("");
  const [since, setSince] = useState("");
  const [until, setUntil] = useState("");
  const [was, setWas] = useState<Mark | null>(null);
  const [now, setNow] = useState<Mark | null>(null);

  const wanted = useMemo(() => {
    const all = {
      words: words.trim(),
      author,
      strip,
      since: instant(since),
      until: instant(until, MINUTE_MS - 1),
    };
    return Object.fromEntries(Object.entries(all).filter(([, value]) => value));
  }, [words, author, strip, since, until]);
  const { read, fault, again, further } = useHistory(showId, wanted, revision);
  const gestures = read ? [...read.newest.gestures, ...read.older] : [];
  const points = read?.newest.points ?? [];
  const people = read?.newest.people ?? [];
  return (
    <>
      <ViewHead title="History">
        <SearchField
          label="Find in the history"
          placeholder="Find in words"
          value={words}
          onChange={setWords}
          className="w-40"
        />
        <StripChoice value={strip} onChange={setStrip} />
        <Choice
          boxed
          label="Whose changes"
          className="h-9"
          value={author}
          options={[["", "everybody"], ...people.map((one) => [one, one] as const)]}
          onChange={setAuthor}
        />
        <span className="flex items-center gap-x-3 gap-y-1.5 phone:flex-wrap phone:basis-full">
          <TimeField word="since" value={since} onChange={setSince} />
          <TimeField word="until" value={until} onChange={setUntil} />
        </span>
      </ViewHead>
      {fault && (
        <p role="alert" className="text-coral pb-2">
          {fault}
        </p>
      )}
      <KeepPoint onKept={again} />
      {was && (
        <ComparePanel
          key={`${was.revision} ${now?.revision}`}
          was={was}
          now={now}
          points={points}
          onNow={setNow}
          onClose={() => {
            setWas(null);
            setNow(null);
          }}
        />
      )}
      {read && gestures.length === 0 && points.length === 0 ? (
        <Empty
          title={Object.keys(wanted).length ? "No change like that" : "Nothing was changed yet"}
        >
          <p>
            {Object.keys(wanted).length
              ? "Ask for less: another strip, another person, another time."
              : "Every change that anybody makes is told here, with its hour and its author."}
          </p>
        </Empty>
      ) : (
        <div
          className="scrolls flex-1 min-h-0 short:min-h-60"
          tabIndex={0}
          role="region"
          aria-label="Changes"
        >
          {points.length > 0 && (
            <ul className="flex flex-col gap-[3px] pb-3" aria-label="Points">
              {points.map((point) => (
                <PointRow
                  key={point.id}
                  point={point}
                  onCompare={() => setWas(point)}
                  onForget={() =>
                    void forgetPoint(showId, point.id).then(again, (error: Error) =>
                      notify(error.message, "refused"),
                    )
                  }
                />
              ))}
            </ul>
          )}
          <ol className="flex flex-col gap-[3px]" aria-label="Gestures">
            {gestures.map((gesture) => (
              <GestureRow
                key={gesture.last}
                gesture={gesture}
                onCompare={() =>
                  setWas({ revision: gesture.first - 1, name: `before “${gesture.says}”` })
                }
              />
            ))}
          </ol>
          {read?.more && (
            <Button className="my-3" onClick={further}>
              Earlier changes
            </Button>
          )}
        </div>
      )}
    </>
  );
}

const MINUTE_MS = 60_000;

/** What the browser's field of a day and an hour says, for the server; "" while it is not whole. */
const instant = (local: string, laterMs = 0): string =>
  local && new Date(Date.parse(local) + laterMs).toISOString();

/** An end of the time that is looked at, to the minute. */
function TimeField({
  word,
  value,
  onChange,
}: {
  word: "since" | "until";
  value: string;
  onChange: (value: string) => void;
}) {
  return (
    <label className="flex items-center gap-1.5 text-faint text-[13px] phone:basis-full">
      <span className="phone:w-9">{word}</span>
      <input
        type="datetime-local"
        aria-label={`Changes ${word}`}
        className="h-9 px-2 rounded-lg border border-edge bg-card text-paper phone:flex-1"
        value={value}
        onChange={(event) => onChange(event.currentTarget.value)}
      />
    </label>
  );
}

/** Every strip in use, to see what became of one. */
function StripChoice({ value, onChange }: { value: string; onChange: (strip: string) => void }) {
  const text = useShow((state) =>
    [
      ...state.channels.map((n) => `channel/${n}`),
      ...state.returns.map((n) => `return/${n}`),
      ...state.groups.map((n) => `group/${n}`),
      ...state.mixes.map((n) => `mix/${n}`),
      ...state.matrices.map((n) => `matrix/${n}`),
      "house",
      "mono",
    ]
      .map((strip) => `${strip}\t${stripName(state, strip)}`)
      .join("\n"),
  );
  const options = useMemo(
    () => text.split("\n").map((row) => row.split("\t") as [string, string]),
    [text],
  );
  return (
    <Choice
      boxed
      label="Which strip"
      className="h-9 max-w-44"
      value={value}
      options={[["", "every strip"], ...options]}
      onChange={onChange}
    />
  );
}

/** The show as it stands now, kept under a name. */
function KeepPoint({ onKept }: { onKept: () => void }) {
  const showId = useShow((state) => state.desk!.show.id);
  const revision = useShow((state) => state.revision);
  const [name, setName] = useState("");
  const [fault, setFault] = useState("");
  return (
    <form
      className="flex items-center gap-2 flex-wrap pb-2 shrink-0"
      onSubmit={(event) => {
        event.preventDefault();
        if (!name.trim() || revision === null) return;
        const keep = () =>
          keepPoint(showId, name, revision).then(
            (point) => {
              setFault("");
              notify(`${point.name} kept`);
              onKept();
              return true;
            },
            (error: Error) => {
              setFault(error.message);
              return false;
            },
          );
        void sending([[name, setName]], keep);
      }}
    >
      <input
        aria-label="Name of a point"
        placeholder="Keep it as it stands now, under a name"
        maxLength={60}
        className="h-9 w-72 px-2.5 rounded-lg border border-edge bg-card placeholder:text-faint"
        value={name}
        onChange={(event) => setName(event.currentTarget.value)}
      />
      <Button type="submit" disabled={!name.trim()}>
        Keep the point
      </Button>
      {fault && (
        <span role="alert" className="text-coral">
          {fault}
        </span>
      )}
    </form>
  );
}

function PointRow({
  point,
  onCompare,
  onForget,
}: {
  point: Point;
  onCompare: () => void;
  onForget: () => void;
}) {
  return (
    <li
      className="flex items-center gap-x-3 gap-y-1 phone:flex-wrap min-h-11 rounded-lg border border-iris/60 bg-card px-3 py-1"
      data-point={point.revision}
    >
      <span className="w-2.5 h-2.5 rounded-full bg-iris shrink-0" aria-hidden />
      <strong dir="auto" className="flex-1 min-w-0 break-words">
        {point.name}
      </strong>
      <span className="text-faint text-[13px] whitespace-nowrap">
        kept {whenText(point.made_at)} by {point.author}
      </span>
      <Button small aria-label={`Compare, ${point.name}`} onClick={onCompare}>
        Compare
      </Button>
      <Button small tone="quiet" aria-label={`Forget, ${point.name}`} onClick={onForget}>
        Forget
      </Button>
    </li>
  );
}

const KIND: Record<string, string> = { undo: "undo", redo: "again" };

function GestureRow({ gesture, onCompare }: { gesture: PastGesture; onCompare: () => void }) {
  return (
    <li
      className="flex items-center gap-x-3 phone:flex-wrap min-h-10 rounded-lg bg-floor px-3 py-1 phone:pb-2"
      data-gesture={gesture.last}
    >
      <span className="w-24 phone:w-auto shrink-0 text-faint text-[13px]">
        {whenText(gesture.made_at)}
      </span>
      <span dir="auto" className="w-24 phone:w-auto phone:flex-1 shrink-0 truncate text-soft">
        {gesture.author}
      </span>
      <span dir="auto" className="flex-1 phone:basis-full phone:order-last min-w-0 break-words">
        {KIND[gesture.kind] && <span className="text-iris">{KIND[gesture.kind]} </span>}
        {gesture.says}
        {gesture.now ? (
          <span className="text-soft text-[13.5px]">
            {" "}
            {gesture.was} → <span className="text-paper">{gesture.now}</span>
          </span>
        ) : (
          gesture.values > 1 && (
            <span className="text-faint text-[13px]"> · {gesture.values} values</span>
          )
        )}
      </span>
      <Button
        small
        tone="quiet"
        title="Compare with how it stood before this"
        aria-label={`Compare, before ${gesture.says}`}
        onClick={onCompare}
      >
        Compare
      </Button>
    </li>
  );
}
