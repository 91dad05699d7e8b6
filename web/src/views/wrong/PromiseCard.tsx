import { useMemo } from "react";
import { isSender, numberOf } from "../../data/address";
import { valueIn } from "../../data/show";
import type { Breach, Judged, Remedy } from "../../data/types";
import { useLink, useShow, useText } from "../../data/use";
import { setterText } from "../../data/words";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { NameField } from "../../ui/NameField";
import { InRow, useRows } from "../../ui/reach";
import { SwitchKey } from "../../ui/SwitchKey";
import { TakesChoice } from "../../ui/TakesChoice";
import { TypedField } from "../../ui/TypedField";
import { stripsText } from "../rulers/kinds";
import { useThrough } from "./NewPromise";

const keyOf = ({ source, listener }: Breach) => `${source} ${listener}`;

/** One promise: whether it holds, every way that breaks it with what closes it, and its terms. */
export function PromiseCard({ promise }: { promise: string }) {
  const link = useLink();
  const judged = useShow((state) => state.judged.find((one) => one.promise === promise));
  const ways = useRows((judged?.breaches ?? []).map(keyOf));
  if (!judged) return null; // made a moment ago: the core has not judged it yet
  const broken = judged.breaking > 0;
  const more = judged.breaking - judged.breaches.length;
  return (
    <li
      data-row={promise}
      data-promise={promise}
      data-kept={!broken}
      className={`rounded-xl border p-3 bg-floor flex flex-col gap-2 ${broken ? "border-coral" : "border-line"}`}
    >
      <div className="flex items-center gap-3 flex-wrap">
        <State judged={judged} />
        <h2 className="font-semibold flex-1 min-w-48 break-words">{judged.says}</h2>
        {judged.breaking > 1 && (
          <Button
            small
            tone="main"
            onClick={() => void link.do({ action: "mend_promise", promise }, { quiet: false })}
          >
            Close all {judged.breaking}
          </Button>
        )}
        <Button
          small
          tone="quiet"
          aria-label={`Remove: ${judged.says}`}
          onClick={() => void link.do({ action: "clear_ruler", ruler: promise }, { quiet: false })}
        >
          Remove
        </Button>
      </div>
      {judged.vain && <p className="text-sun-text">{judged.vain}</p>}
      {broken && (
        <ul className="flex flex-col gap-1" {...ways.hand}>
          {judged.breaches.map((breach) => (
            <InRow key={keyOf(breach)} of={keyOf(breach)} rows={ways}>
              <Way breach={breach} />
            </InRow>
          ))}
          {more > 0 && <li className="text-soft">and {more} more</li>}
        </ul>
      )}
      <Terms promise={promise} />
    </li>
  );
}

function State({ judged }: { judged: Judged }) {
  if (judged.breaking > 0)
    return (
      <span className="inline-flex items-center gap-2 text-coral font-semibold">
        <span aria-hidden className="w-2.5 h-2.5 bg-coral rotate-45" /> broken
      </span>
    );
  if (judged.vain) return <span className="text-faint">holds nothing yet</span>;
  const arrive = judged.passing > 0 ? `, ${judged.passing} arrive so` : "";
  return (
    <span className="inline-flex items-center gap-2 text-sea">
      <span aria-hidden className="w-2.5 h-2.5 rounded-full bg-sea" /> kept{arrive}
    </span>
  );
}

/** One way by which it is broken: whose hand, whether it is heard now, what closes it. */
function Way({ breach }: { breach: Breach }) {
  const link = useLink();
  const setter = useShow((state) => breach.feeds.map((feed) => state.setBy[feed]).find(Boolean));
  const make = (one: Remedy) =>
    void link.do({ action: "moves", moves: one.moves, says: one.says }, { quiet: false });
  return (
    <li
      data-row={keyOf(breach)}
      data-subject={`${breach.source} ${breach.listener}`}
      className="flex items-center gap-x-3 gap-y-1.5 flex-wrap rounded-lg bg-card border border-line px-3 py-1.5 min-h-11"
    >
      <span className={`flex-1 min-w-56 break-words ${breach.open ? "text-coral" : ""}`}>
        {breach.says}
        {setter && <span className="text-faint text-[13px]"> By {setterText(setter)}.</span>}
      </span>
      {breach.remedies.map((one, place) => (
        <Button
          key={one.says}
          small
          tone={place === 0 ? "plain" : "quiet"}
          className="max-w-full"
          onClick={() => make(one)}
        >
          <span className="truncate">{one.says}</span>
        </Button>
      ))}
    </li>
  );
}

/** What it is about and where it looks, to be typed anew; whether effects count. */
function Terms({ promise }: { promise: string }) {
  const link = useLink();
  const members = useShow((state) => state.members.get(promise));
  const [sources, listeners] = useMemo(() => {
    const all = [...(members ?? [])];
    return [
      stripsText(all.filter(isSender)),
      stripsText(all.filter((strip) => !isSender(strip))),
    ] as const;
  }, [members]);
  const kind = useText(`${promise}/kind`);
  const through = useShow((state) => String(valueIn(state, `${promise}/through`) ?? ""));
  const name = useText(`${promise}/name`);
  const options = useThrough();
  const about = (strips: string) =>
    void link.do(
      { action: "members", ruler: promise, strips, exactly: true, on: true },
      { quiet: false },
    );
  return (
    <div className="flex items-center gap-2 flex-wrap text-[13.5px]">
      <NameField
        of={promise}
        label={`Name of promise ${numberOf(promise)}`}
        className="w-40 coarse:h-11"
      />
      <TypedField
        boxed
        label={`What ${name} is about`}
        value={sources}
        placeholder="31, 48"
        className="w-40 coarse:h-11"
        onCommit={(text) => about([text, listeners].filter(Boolean).join(", "))}
      />
      {kind !== "all_but" && <TakesChoice of={promise} name={name || "the promise"} />}
      {kind === "all_but" ? (
        <span className="text-soft">not in, but all else that the house has:</span>
      ) : (
        <Choice
          boxed
          label={`Never or through, ${name}`}
          value={kind === "never" ? "" : through}
          options={options}
          className="coarse:h-11 max-w-56"
          onChange={(group) =>
            void link.do({
              action: "moves",
              moves: [
                { address: `${promise}/kind`, value: group ? "only_through" : "never" },
                { address: `${promise}/through`, value: group || null },
              ],
            })
          }
        />
      )}
      <TypedField
        boxed
        label={`Where ${name} looks`}
        value={listeners}
        placeholder="house, matrix 2"
        className="w-36 coarse:h-11"
        onCommit={(text) => about([sources, text].filter(Boolean).join(", "))}
      />
      <SwitchKey address={`${promise}/wet`} of={name} word="effects count" />
    </div>
  );
}
