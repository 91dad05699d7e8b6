import { type ReactNode, useEffect, useMemo, useState } from "react";
import { comparePoints } from "../../data/http";
import type { Ask, Compared, Point } from "../../data/types";
import { useLink, useShow } from "../../data/use";
import { levelText } from "../../data/words";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Consequence } from "../../ui/Consequence";
import { Tabs } from "../../ui/Tabs";
import { Waiting } from "../../ui/Waiting";
import type { Mark } from "./HistoryView";

interface Props {
  was: Mark;
  /** With what; nothing: the show as it stands. */
  now: Mark | null;
  points: readonly Point[];
  onNow: (now: Mark | null) => void;
  onClose: () => void;
}

/** Two states of the show side by side, and the way back to the earlier one: whole, or some strips. */
export function ComparePanel({ was, now, points, onNow, onClose }: Props) {
  const link = useLink();
  const showId = useShow((state) => state.desk!.show.id);
  const revision = useShow((state) => state.revision);
  const [compared, setCompared] = useState<Compared | null>(null);
  const [fault, setFault] = useState("");
  const [tab, setTab] = useState("heard");
  const [typed, setTyped] = useState("");
  const [about, setAbout] = useState("");
  const [strips, setStrips] = useState<ReadonlySet<string>>(new Set());
  const [asking, setAsking] = useState(false);
  useEffect(() => {
    let current = true;
    comparePoints(showId, was.revision, now?.revision ?? null, about).then(
      (found) => {
        if (!current) return;
        setCompared(found);
        setFault("");
      },
      (error: Error) => current && setFault(error.message),
    );
    return () => {
      current = false;
    };
  }, [showId, was.revision, now, revision, about]);
  const ask = useMemo<Ask>(
    () => ({
      action: "back_to",
      revision: was.revision,
      strips: [...strips],
      name: was.name.slice(0, 60),
    }),
    [was, strips],
  );
  const goBack = async () => {
    if (await link.do(ask, { quiet: false })) onClose();
  };
  const options = [
    ["", "how it stands now"],
    ...points.map((point) => [String(point.revision), point.name] as const),
  ] as const;
  const toggle = (strip: string) =>
    setStrips((before) => {
      const after = new Set(before);
      if (!after.delete(strip)) after.add(strip);
      return after;
    });
  const chosen =
    compared?.strips.filter(([strip]) => strips.has(strip)).map(([, name]) => name) ?? [];
  return (
    <section
      aria-label="Compared"
      className="rounded-xl border border-iris/60 bg-floor px-3 py-2 mb-2 flex flex-col gap-2 max-h-[60%] short:max-h-none shrink-0 min-h-0"
    >
      <div className="flex items-center gap-2 flex-wrap">
        <span dir="auto" className="min-w-0 break-words">
          <strong>{was.name}</strong> <span className="text-faint">against</span>
        </span>
        <Choice
          boxed
          label="Against what"
          className="h-8 max-w-56"
          value={now ? String(now.revision) : ""}
          options={options}
          onChange={(value) =>
            onNow(
              value
                ? {
                    revision: Number(value),
                    name: points.find((point) => String(point.revision) === value)!.name,
                  }
                : null,
            )
          }
        />
        <form
          className="flex items-center gap-1.5"
          onSubmit={(event) => {
            event.preventDefault();
            setAbout(typed.trim());
          }}
        >
          <input
            aria-label="Only about strips"
            placeholder="all; or mix 3, Kick, drums"
            className="h-8 coarse:h-11 w-52 px-2 rounded-md border border-edge bg-card placeholder:text-faint"
            maxLength={200}
            value={typed}
            onChange={(event) => setTyped(event.currentTarget.value)}
            onBlur={() => setAbout(typed.trim())}
          />
        </form>
        <span className="flex-1" />
        {compared && !now && compared.differing > 0 && (
          <Button
            tone={asking ? "plain" : "main"}
            aria-expanded={asking}
            onClick={() => setAsking(!asking)}
          >
            {asking ? "Stay here" : "Go back to it…"}
          </Button>
        )}
        <Button tone="quiet" onClick={onClose}>
          Close
        </Button>
      </div>
      {fault && (
        <p role="alert" className="text-coral">
          {fault}
        </p>
      )}
      {!compared && !fault && <Waiting />}
      {compared && compared.differing === 0 && (
        <p className="text-sea">{about ? `Of ${about} nothing differs.` : "They are the same."}</p>
      )}
      {compared && compared.differing > 0 && asking && (
        <div className="flex flex-col gap-1.5 min-h-0">
          <fieldset className="flex gap-1.5 flex-wrap max-h-24 scrolls">
            <legend className="text-soft text-[13px] pb-1">
              The whole show goes back, or only the strips chosen here:
            </legend>
            {compared.strips.map(([strip, name, count]) => (
              <Button
                key={strip}
                small
                aria-pressed={strips.has(strip)}
                className={strips.has(strip) ? "!border-sun !text-sun-text" : ""}
                onClick={() => toggle(strip)}
              >
                <span dir="auto" className="truncate max-w-40">
                  {name}
                </span>{" "}
                <span className="text-faint">{count}</span>
              </Button>
            ))}
          </fieldset>
          <Consequence ask={ask} />
          <Button tone="main" className="self-start max-w-full" onClick={() => void goBack()}>
            <span dir="auto" className="truncate">
              {chosen.length === 0
                ? "Bring the whole show back"
                : `Bring back ${chosen.slice(0, 3).join(", ")}${chosen.length > 3 ? ` and ${chosen.length - 3} more` : ""}`}
            </span>
          </Button>
        </div>
      )}
      {compared && compared.differing > 0 && (
        <>
          <Tabs
            label="Compared by"
            tabs={[
              { key: "heard", word: "By who hears what", note: String(compared.heard_otherwise) },
              { key: "address", word: "By setting", note: String(compared.differing) },
            ]}
            chosen={tab}
            onChoose={setTab}
          />
          <div
            className="scrolls min-h-16 flex-1"
            tabIndex={0}
            role="region"
            aria-label="Differences"
          >
            {tab === "heard" ? <Heard compared={compared} /> : <Settings compared={compared} />}
          </div>
        </>
      )}
    </section>
  );
}

const HEAD = "text-left font-normal text-faint text-[12px] pr-3 pb-0.5";
const CELL = "pr-3 py-0.5 align-top";

/** A table of what was and what is; of many rows the first are here, the rest are counted. */
function Laid({
  first,
  second,
  all,
  rows,
}: {
  first: string;
  second: string;
  all: number;
  rows: readonly (readonly [key: string, ...cells: ReactNode[]])[];
}) {
  return (
    <table className="w-full">
      <thead>
        <tr>
          {[first, second, "was", "is"].map((word) => (
            <th key={word} scope="col" className={HEAD}>
              {word}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(([key, ...cells]) => (
          <tr key={key} title={key}>
            {cells.map((cell, place) => (
              <td
                dir="auto"
                key={[first, second, "was", "is"][place]}
                className={`${CELL} break-words ${place === 1 ? "text-soft" : ""}`}
              >
                {cell}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
      {all > rows.length && <More all={all} shown={rows.length} />}
    </table>
  );
}

const heardText = (levelDb: number | null): ReactNode =>
  levelDb === null ? <span className="text-coral">not heard</span> : levelText(levelDb);

function Heard({ compared }: { compared: Compared }) {
  if (compared.heard.length === 0) return <p className="text-soft">Everybody hears the same.</p>;
  const rows = compared.heard.map(
    (cell) =>
      [
        `${cell.source} ${cell.listener}`,
        cell.source_name,
        cell.listener_name,
        heardText(cell.was_db),
        heardText(cell.now_db),
      ] as const,
  );
  return <Laid first="Source" second="For" all={compared.heard_otherwise} rows={rows} />;
}

function Settings({ compared }: { compared: Compared }) {
  const rows = compared.differences.map(
    (one) => [one.address, one.whose, one.what, one.was, one.now] as const,
  );
  return <Laid first="Of" second="What" all={compared.differing} rows={rows} />;
}

function More({ all, shown }: { all: number; shown: number }) {
  return (
    <tfoot>
      <tr>
        <td colSpan={4} className="text-faint py-1">
          and {all - shown} more.
        </td>
      </tr>
    </tfoot>
  );
}
