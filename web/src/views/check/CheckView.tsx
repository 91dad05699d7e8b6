import { useEffect, useState } from "react";
import { store, valueIn } from "../../data/show";
import { subjectAmong } from "../../data/subject";
import { select, useLink, useShow } from "../../data/use";
import { useViewKeys } from "../../frame/useViewKeys";
import { ViewHead } from "../../frame/ViewHead";
import { Empty } from "../../ui/Panel";
import { CheckCard } from "./CheckCard";
import { CheckList } from "./CheckList";

/** The first line that nobody has checked, from `after` on and round; null when all are. */
function nextUnchecked(after: number | null): number | null {
  const state = store.getState();
  const from = after === null ? 0 : state.lines.indexOf(after) + 1;
  const order = [...state.lines.slice(from), ...state.lines.slice(0, from)];
  return order.find((line) => valueIn(state, `line/${line}/check`) === "unchecked") ?? null;
}

/** Whether the stage says of a line that nothing arrives. Without a stage nobody can tell. */
function arrivesNothing(line: number): boolean {
  const meters = store.getState().meters;
  return meters !== null && meters.line === line && meters.dbfs === null;
}

/** Down the input list: feed it or tap it, see where it arrives, good or bad, next. */
export function CheckView() {
  const link = useLink();
  const lines = useShow((state) => state.lines);
  const [chosen, setChosen] = useState<number | null>(null);
  const [fed, setFed] = useState<"tone" | "noise" | null>(null);
  const [unsure, setUnsure] = useState<number | null>(null);
  const line = chosen !== null && lines.includes(chosen) ? chosen : (lines[0] ?? null);

  const goTo = (next: number | null) => {
    if (line !== null && fed) link.feed(line, "nothing");
    if (next !== null && fed) link.feed(next, fed);
    if (next !== null) setChosen(next);
  };
  const step = (by: number) => {
    const at = line === null ? -1 : lines.indexOf(line);
    goTo(lines[Math.min(lines.length - 1, Math.max(0, at + by))] ?? null);
  };
  const feed = (signal: "tone" | "noise") => {
    if (line === null) return;
    const wanted = fed === signal ? null : signal;
    link.feed(line, wanted ?? "nothing");
    setFed(wanted);
  };
  const judge = (verdict: "good" | "bad") => {
    if (line === null) return;
    if (verdict === "good" && unsure !== line && arrivesNothing(line)) {
      setUnsure(line);
      return;
    }
    setUnsure(null);
    void link.put(`line/${line}/check`, verdict);
    if (verdict === "good") goTo(nextUnchecked(line));
  };

  // Come in where the work stands, as soon as there is a list.
  const started = lines.length > 0;
  useEffect(() => {
    if (started) setChosen(nextUnchecked(null));
  }, [started]);
  useEffect(() => link.watch({ check: line }), [link, line]);
  const channel = useShow(
    (state) => subjectAmong(state, line === null ? [] : [`line/${line}`]).source,
  );
  useEffect(() => {
    if (channel) select(channel);
  }, [channel, line]);
  // Leaving the view leaves the stage quiet.
  useEffect(() => {
    return () => {
      link.watch({ check: null });
      store.setState({ meters: null });
    };
  }, [link]);
  useEffect(() => {
    if (line === null || !fed) return;
    const quiet = () => link.feed(line, "nothing");
    return quiet;
  }, [link, line, fed]);
  useViewKeys("check", {
    good: () => judge("good"),
    bad: () => judge("bad"),
    tone: () => feed("tone"),
    note: () => document.getElementById("check-note")?.focus(),
    after: () => step(1),
    before: () => step(-1),
  });

  return (
    <>
      <ViewHead title="Line check">
        <Counts />
      </ViewHead>
      {line === null ? (
        <Empty title="Nothing to check yet">
          <p>Line check walks down the input list. Import it first, in Lines.</p>
        </Empty>
      ) : (
        <div className="flex-1 min-h-0 scrolls grid gap-3 md:overflow-hidden md:grid-rows-1 md:grid-cols-[minmax(0,1fr)_minmax(200px,300px)]">
          <CheckCard
            line={line}
            fed={fed}
            unsure={unsure === line}
            onFeed={feed}
            onJudge={judge}
            onStep={step}
          />
          <CheckList line={line} onChoose={goTo} />
        </div>
      )}
    </>
  );
}

function Counts() {
  const text = useShow((state) => {
    let good = 0;
    let bad = 0;
    for (const line of state.lines) {
      const verdict = valueIn(state, `line/${line}/check`);
      if (verdict === "good") good++;
      if (verdict === "bad") bad++;
    }
    return `${good} good, ${bad} bad, ${state.lines.length - good - bad} to go`;
  });
  return (
    <span className="text-soft whitespace-nowrap" role="status">
      {text}
    </span>
  );
}
