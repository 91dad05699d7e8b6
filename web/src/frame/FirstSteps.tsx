import { useEffect } from "react";
import { useLocation } from "wouter";
import type { FirstStep } from "../data/types";
import { useLink, useShow } from "../data/use";
import { Button } from "../ui/Button";
import { beginSteps, setSteps, useStepsOf, WAYS } from "./firstSteps";

/** On a new show: what is done, and what comes next; gone when all is done, or put away. */
export function FirstSteps() {
  const show = useShow((state) => state.desk?.show.id ?? "");
  const here = useShow((state) => state.revision !== null);
  const standing = useStepsOf(show);
  useEffect(() => {
    if (here) beginSteps();
  }, [here]);
  return standing === "begun" && here ? <Steps show={show} /> : null;
}

function Steps({ show }: { show: string }) {
  const link = useLink();
  const [path, navigate] = useLocation();
  const steps = useShow((state) => state.steps);
  const next = steps.find((step) => !step.done);
  if (!next) return null;
  // where the next step is taken there is nowhere to lead to
  const there = path === WAYS[next.key].to;
  const take = ({ key }: FirstStep) => {
    const { ask, to } = WAYS[key];
    if (ask) void link.do(ask, { quiet: false });
    else navigate(to);
  };
  return (
    <section
      aria-label="First steps"
      className="shrink-0 mt-2 rounded-2xl border border-sun bg-card px-3 py-2 flex phone:flex-wrap items-center gap-x-3 gap-y-2"
    >
      <ol className="flex gap-1 slim:hidden shrink-0">
        {steps.map((step, index) => (
          <li key={step.key}>
            <button
              type="button"
              aria-current={step === next ? "step" : undefined}
              onClick={() => navigate(WAYS[step.key].to.split("?")[0]!)}
              className={`h-9 coarse:h-11 px-2.5 rounded-xl border cursor-pointer whitespace-nowrap ${
                step === next
                  ? "border-sun font-semibold"
                  : step.done
                    ? "border-transparent text-sea"
                    : "border-line text-soft"
              }`}
            >
              {step.done ? "✓" : index + 1} {WAYS[step.key].word}
              <span className="sr-only">{step.done ? ", done" : ""}</span>
            </button>
          </li>
        ))}
      </ol>
      <p className="flex-1 min-w-32 text-soft leading-snug">{next.says}</p>
      {there ? null : (
        <Button tone="main" onClick={() => take(next)}>
          {WAYS[next.key].does}
        </Button>
      )}
      <button
        type="button"
        aria-label="Put the first steps away"
        title="Put the first steps away: Find brings them back"
        onClick={() => setSteps(show, "away")}
        className="w-9 h-9 coarse:w-11 coarse:h-11 rounded-xl cursor-pointer text-soft hover:bg-raise"
      >
        ✕
      </button>
    </section>
  );
}
