import { useEffect, useState } from "react";
import { takeRemedy } from "../../data/remedy";
import type { Remedy, Why } from "../../data/types";
import { useLink, useShow } from "../../data/use";
import { levelText, setterText } from "../../data/words";
import { Button } from "../../ui/Button";
import { useRows } from "../../ui/reach";
import { RulerLink } from "../../ui/TrueLevel";
import { LastHand } from "./LastHand";
import { SourceFields } from "./SourceFields";

type Step = Why["head"][number];

/** On the right: why the selected source arrives at the selected listener as it does. */
export function WhyPanel({ onFold }: { onFold?: () => void }) {
  const why = useShow((state) => state.why);
  const selected = useShow((state) => state.selected);
  const sources = useShow((state) => state.channels.length + state.returns.length);
  return (
    <aside
      aria-label="Why"
      className="relative border-x border-line bg-floor px-4 py-3 scrolls min-h-0 flex-1"
    >
      {onFold && (
        <div className="flex items-center justify-between pb-1">
          <h2 className="font-title text-[17px] font-bold">Why</h2>
          <button
            type="button"
            onClick={onFold}
            title="Fold Why to the edge (W)"
            className="h-8 coarse:h-11 px-2 -mr-2 rounded-lg flex items-center gap-2 text-[13px] text-soft cursor-pointer hover:bg-card hover:text-paper"
          >
            fold
            <kbd className="font-sans font-semibold border border-edge rounded-md px-1.5 text-[12px]">
              W
            </kbd>
          </button>
        </div>
      )}
      {!selected || !why || sources === 0 ? (
        <p className="text-soft">
          Why answers for what is selected: choose a cell of Who hears what, a channel or a send.
        </p>
      ) : (
        <Answer why={why} source={selected.source} />
      )}
    </aside>
  );
}

function Answer({ why, source }: { why: Why; source: string }) {
  const heard = why.state === "heard";
  const tone = heard ? "text-sea" : why.state === "unrouted" ? "text-faint" : "text-coral";
  return (
    <>
      <p className="text-soft break-words">
        <bdi>{why.source_name}</bdi> <span aria-hidden>→</span>
        <span className="sr-only">to</span> <bdi>{why.listener_name}</bdi>
      </p>
      <p className="font-title text-[32px] leading-tight font-bold" data-testid="why-level">
        {heard ? `${levelText(why.level_db)} dB` : "silent"}
      </p>
      <p className={tone}>{why.says}</p>
      <SourceFields source={source} />
      {why.reasons.map((reason, index) => (
        <Reason key={`${reason.code}-${index}`} reason={reason} />
      ))}
      {why.also.length > 0 && (
        <p className="mt-3 text-soft">
          Sent, it would still be silent: {why.also.map((one) => one.says).join(" ")}
        </p>
      )}
      {why.opening && why.reasons.length + why.also.length > 1 && <Opening remedy={why.opening} />}
      <Ways why={why} />
      <p className="mt-4 text-[12px] text-faint">
        Levels from behind the preamp to the listener. Gates count as open, compressors as below
        their threshold.
      </p>
    </>
  );
}

/** The fewest actions that let it be heard, as one press. */
function Opening({ remedy }: { remedy: Remedy }) {
  const link = useLink();
  return (
    <Button
      tone="main"
      className="mt-3 w-full justify-center"
      onClick={() => void takeRemedy(link, remedy)}
    >
      {remedy.says}
    </Button>
  );
}

/** Every way from the source to the listener; where there are several, one is unfolded. */
function Ways({ why }: { why: Why }) {
  const [open, setOpen] = useState(0);
  const cell = `${why.source} ${why.listener}`;
  useEffect(() => setOpen(0), [cell]);
  const rows = useRows(why.ways.map((way) => way.says));
  const [first] = why.ways;
  if (why.ways.length <= 1)
    return (
      <>
        <Steps steps={[...why.head, ...(first?.steps ?? [])]} />
        {first && why.state === "heard" && <Late ms={first.late_ms} />}
      </>
    );
  return (
    <div className="mt-4">
      <Steps steps={why.head} />
      <ul className="flex flex-col gap-1.5 mt-1" aria-label="Ways" {...rows.hand}>
        {why.ways.map((way, index) => (
          <li
            key={way.says}
            data-row={way.says}
            className={`rounded-lg border border-line ${index === open ? "bg-card" : ""}`}
          >
            <button
              type="button"
              tabIndex={rows.reached === way.says ? 0 : -1}
              aria-expanded={index === open}
              onClick={() => setOpen(index === open ? -1 : index)}
              className="w-full flex items-baseline gap-2 px-2.5 py-1.5 text-left cursor-pointer rounded-lg hover:bg-card"
            >
              <span
                className={`w-2 h-2 rounded-full border-2 shrink-0 self-center ${way.wet ? "border-iris" : "border-sea"}`}
                aria-hidden
              />
              <span className="flex-1 min-w-0 break-words text-[13px] leading-tight">
                {way.says || "direct"}
              </span>
              <span className={way.wet ? "text-soft" : ""}>{levelText(way.level_db)}</span>
            </button>
            {index === open && (
              <div className="px-2.5 pb-1">
                <Steps steps={way.steps} />
                <Late ms={way.late_ms} />
              </div>
            )}
          </li>
        ))}
      </ul>
      {why.ways.some((way) => way.wet) && (
        <p className="mt-2 text-[12px] text-faint">
          Wet ways come on top: the level above is the dry sound.
        </p>
      )}
    </div>
  );
}

/** How late it arrives, by the figures of the desk and every delay on the way. */
function Late({ ms }: { ms: number | null }) {
  if (ms === null) return null;
  return <p className="text-[12px] text-faint pt-1">{ms.toFixed(2)} ms after the source</p>;
}

/** The steps of a way: one stop for the Tab key, since each may be asked who set it. */
function Steps({ steps }: { steps: readonly Step[] }) {
  const keys = steps.map((step, index) => `${step.kind}-${index}`);
  const rows = useRows(keys.filter((_, index) => steps[index]!.address));
  return (
    <ol className="mt-4 first:mt-2 flex flex-col" {...rows.hand}>
      {steps.map((step, index) => (
        <StepRow
          key={keys[index]}
          row={keys[index]!}
          step={step}
          last={index === steps.length - 1}
          isStop={rows.reached === keys[index]}
        />
      ))}
    </ol>
  );
}

function Reason({ reason }: { reason: Why["reasons"][number] }) {
  const link = useLink();
  const remedy = reason.remedy;
  // of a key that no remedy may move: who holds it
  const setter = useShow((state) =>
    reason.ruler && !remedy ? state.setBy[`${reason.ruler}/on`] : undefined,
  );
  const unrouted = reason.code === "unrouted";
  const [asked, setAsked] = useState(false);
  const make = (one: Remedy) => void takeRemedy(link, one);
  return (
    <div
      className={`mt-3 rounded-xl p-3 border ${unrouted ? "bg-card border-line" : "bg-card border-coral/50"}`}
    >
      <p className={unrouted ? "text-soft" : "text-coral font-semibold"}>{reason.says}</p>
      {reason.ruler && (
        <p className="text-[13px] text-faint mt-1">
          Go to <RulerLink ruler={reason.ruler} />
          {setter && <span className="text-soft"> · set by {setterText(setter)}</span>}
        </p>
      )}
      {reason.address && (
        <details
          className="mt-1 text-[13px]"
          onToggle={(event) => setAsked(event.currentTarget.open)}
        >
          <summary className="text-faint cursor-pointer min-h-6 coarse:min-h-11">
            Who set it, and when
          </summary>
          {asked && <LastHand address={reason.address} name={reason.says} />}
        </details>
      )}
      {remedy && (
        <Button
          tone={unrouted ? "plain" : "main"}
          small
          className="mt-2 h-9 max-w-full"
          onClick={() => make(remedy)}
        >
          <span className="truncate">{remedy.says}</span>
        </Button>
      )}
      {reason.instead && (
        <Button
          small
          className="mt-2 h-9 max-w-full"
          onClick={() => reason.instead && make(reason.instead)}
        >
          <span className="truncate">{reason.instead.says}</span>
        </Button>
      )}
    </div>
  );
}

/** The number at a step: an absolute level where one is known, else what the step adds. */
function stepLevel(step: Step): string {
  if (step.dbu !== null) return `${levelText(step.dbu, 0)} dBu`;
  if (step.dbfs !== null) return `${levelText(step.dbfs)} dBFS`;
  if (!step.in_path) return "—";
  return step.has_gain ? levelText(step.gain_db) : "";
}

function StepRow({
  row,
  step,
  last,
  isStop,
}: {
  row: string;
  step: Step;
  last: boolean;
  isStop: boolean;
}) {
  const [asked, setAsked] = useState(false);
  const state = !step.in_path ? "not in this path" : step.open ? "open" : "blocked";
  const ring =
    state === "open"
      ? "border-sea"
      : state === "blocked"
        ? "border-coral bg-coral"
        : "border-faint border-dashed";
  return (
    <li
      data-row={row}
      className="grid grid-cols-[18px_minmax(0,1fr)_auto] gap-x-2.5"
      data-state={state}
    >
      <span className="flex flex-col items-center">
        <span className={`w-3 h-3 mt-1 rounded-full border-2 shrink-0 ${ring}`} aria-hidden />
        {!last && (
          <span className={`w-0.5 flex-1 ${step.in_path ? "bg-sea/60" : "bg-line"}`} aria-hidden />
        )}
      </span>
      <span className="pb-3 min-w-0">
        <span className="flex items-baseline gap-2">
          <span
            dir="auto"
            className={`flex-1 min-w-0 truncate ${step.in_path ? "font-semibold" : "text-faint"}`}
          >
            {step.title}
          </span>
          {step.address && (
            <button
              type="button"
              tabIndex={isStop ? 0 : -1}
              aria-expanded={asked}
              aria-label={`Who set ${step.title}, and when`}
              onClick={() => setAsked(!asked)}
              className="shrink-0 min-w-8 h-6 coarse:h-11 text-[12px] text-faint hover:text-paper underline cursor-pointer"
            >
              who
            </button>
          )}
        </span>
        <span className="block text-[12.5px] text-faint break-words">{step.detail}</span>
        {asked && step.address && <LastHand address={step.address} name={step.title} />}
        <span className="sr-only">{state}</span>
      </span>
      <span className={step.in_path ? "text-paper" : "text-faint"}>{stepLevel(step)}</span>
    </li>
  );
}
