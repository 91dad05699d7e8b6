import { useMemo } from "react";
import { numberOf } from "../../data/address";
import { useOnItsWay } from "../../data/fading";
import type { Lift, Singer } from "../../data/types";
import { stripName, useGroupOptions, useLink, useOn, useShow, useText } from "../../data/use";
import { levelText } from "../../data/words";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { NameField } from "../../ui/NameField";
import { OwnWord } from "../../ui/OwnWord";
import { InRow, useRows, useTabIndex } from "../../ui/reach";
import { SwitchKey } from "../../ui/SwitchKey";
import { TypedField } from "../../ui/TypedField";
import { Waiting } from "../../ui/Waiting";
import { ValueField } from "../strip/ValueField";

const ALL = "all"; // the row of them all

/** One lift: its terms, a key for each singer, and the step of each for whoever hears it. */
export function LiftCard({ lift, firstKey }: { lift: Lift; firstKey: number }) {
  const name = useText(`${lift.lift}/name`);
  // as they stand: singers are told a moment later, also when an undo has taken the lift
  const backing = useText(`${lift.lift}/backing`);
  const lead = useText(`${lift.lift}/lead`);
  const whole = (backing !== "" && lead !== "") || lift.singers.length === 0;
  const rows = useRows([...lift.singers.map((one) => one.strip), ALL]);
  const listeners = useMemo(() => {
    const found = new Map<string, string>();
    for (const singer of lift.singers)
      for (const step of singer.steps) found.set(step.listener, step.name);
    return [...found];
  }, [lift]);
  return (
    <li
      data-lift={lift.lift}
      className="rounded-xl border border-line bg-floor p-3 flex flex-col gap-3"
    >
      <Terms lift={lift} name={name} />
      {!whole ? (
        <Waiting />
      ) : lift.vain ? (
        <p className="text-sun-text">{lift.vain}</p>
      ) : (
        <div className="overflow-x-auto" data-wide>
          <table className="border-separate border-spacing-y-1 text-[13.5px]">
            <caption className="sr-only">Steps of {name}, in dB</caption>
            <thead>
              <tr className="text-soft text-left">
                <th className="font-normal pr-3">
                  <OwnWord word="Lift">Lift, or back</OwnWord>
                </th>
                {listeners.map(([listener, word]) => (
                  <th
                    dir="auto"
                    key={listener}
                    className="font-normal px-1 pr-2 text-right max-w-20 truncate"
                    title={word}
                  >
                    {word}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody {...rows.hand}>
              {lift.singers.map((singer, place) => (
                <InRow key={singer.strip} of={singer.strip} rows={rows}>
                  <SingerRow
                    lift={lift.lift}
                    singer={singer}
                    number={firstKey + place}
                    listeners={listeners}
                  />
                </InRow>
              ))}
              <tr data-row={ALL}>
                <th className="font-normal text-soft text-left pr-3 h-11">All alike, up by</th>
                <InRow of={ALL} rows={rows}>
                  {listeners.map(([listener, word]) => (
                    <td key={listener} className="px-1">
                      <StepField lift={lift.lift} strip={null} listener={listener} where={word} />
                    </td>
                  ))}
                </InRow>
              </tr>
            </tbody>
          </table>
        </div>
      )}
    </li>
  );
}

interface RowProps {
  lift: string;
  singer: Singer;
  number: number;
  listeners: readonly (readonly [string, string])[];
}

function SingerRow({ lift, singer, number, listeners }: RowProps) {
  return (
    <tr data-row={singer.strip} data-singer={singer.strip} data-subject={singer.strip}>
      <td className="pr-3">
        <LiftKey lift={lift} singer={singer} number={number} />
      </td>
      {singer.steps.length === 0 ? (
        <td colSpan={Math.max(1, listeners.length)} className="text-faint px-1">
          {singer.says}
        </td>
      ) : (
        listeners.map(([listener, word]) => {
          const step = singer.steps.find((one) => one.listener === listener);
          return (
            <td key={listener} className="px-1">
              {step ? (
                <StepField
                  lift={lift}
                  strip={singer.strip}
                  listener={listener}
                  where={word}
                  stepDb={step.step_db}
                />
              ) : (
                <span className="text-faint px-2" title="It makes no difference here">
                  –
                </span>
              )}
            </td>
          );
        })
      )}
    </tr>
  );
}

/** The key of one singer: up, or back; how far the way there is, while it lasts. */
function LiftKey({ lift, singer, number }: { lift: string; singer: Singer; number: number }) {
  const link = useLink();
  const name = useShow((state) => stripName(state, singer.strip));
  const lead = useText(`${lift}/lead`);
  const way = useOnItsWay(`${singer.strip}/${lead}/level`);
  // as it stands, not as it was told with the steps: two quick presses are up and back
  const lifted = useOn(`${singer.strip}/${lead}/on`);
  const there = way === undefined ? (lifted ? 100 : 0) : part(way);
  return (
    <button
      type="button"
      tabIndex={useTabIndex()}
      aria-pressed={lifted}
      data-moving={way !== undefined}
      onClick={() => void link.do({ action: "lift", lift, strips: [singer.strip], on: !lifted })}
      className={`relative overflow-hidden h-12 w-64 slim:w-56 coarse:w-56 phone:w-48 px-3 rounded-xl border flex items-center gap-2.5 cursor-pointer select-none text-[15px] ${
        lifted ? "border-sun bg-card" : "border-line bg-card hover:bg-raise"
      }`}
    >
      <span
        aria-hidden
        className="absolute left-0 bottom-0 h-1.5 bg-sun"
        style={{ width: `${there}%` }}
      />
      <span className="text-faint w-4 text-center coarse:hidden">{number <= 9 ? number : ""}</span>
      <span dir="auto" className="flex-1 truncate text-left">
        {name}
      </span>
      <span className={lifted ? "text-sun-text font-semibold" : "text-faint phone:hidden"}>
        {lifted ? "▲ leads" : "backing"}
      </span>
    </button>
  );
}

/** How far along a bar a level stands: off at its left, 0 dB at its right. */
const part = (levelDb: number | null): number =>
  levelDb === null ? 0 : Math.max(2, Math.min(100, ((levelDb + 60) / 60) * 100));

interface StepProps {
  lift: string;
  strip: string | null;
  listener: string;
  where: string;
  stepDb?: number | null;
}

/** A step for a listener, typed: of one singer, or of all. */
function StepField({ lift, strip, listener, where, stepDb }: StepProps) {
  const link = useLink();
  const who = useShow((state) => (strip ? stripName(state, strip) : "all"));
  return (
    <TypedField
      boxed
      align="right"
      label={`Step of ${who} at ${where}`}
      value={stepDb === undefined || stepDb === null ? "" : levelText(stepDb)}
      placeholder={strip ? "new" : "+3"}
      className="w-20 h-9 coarse:h-11"
      onCommit={(typed) =>
        void link.do({ action: "trim_lift", lift, strip, listener, typed }, { quiet: false })
      }
    />
  );
}

/** Its groups, its time, whether one at a time; all as values, so undone as ever. */
function Terms({ lift: told, name }: { lift: Lift; name: string }) {
  const link = useLink();
  const lift = told.lift;
  const groups = useGroupOptions();
  return (
    <div className="flex items-center gap-x-3 gap-y-2 flex-wrap">
      <NameField
        of={lift}
        label={`Name of lift ${numberOf(lift)}`}
        className="w-28 h-9 coarse:h-11 font-title font-semibold text-[16px]"
      />
      <Which lift={lift} leaf="backing" word="Backing" name={name} groups={groups} />
      <span className="flex items-center gap-1.5">
        <span className="text-soft">Who</span>
        <TypedField
          boxed
          label={`Who can be lifted, ${name}`}
          value={told.named}
          placeholder="all of it"
          className="w-32 h-9 coarse:h-11"
          onCommit={(strips) =>
            void link.do({ action: "set_singers", lift, strips }, { quiet: false })
          }
        />
      </span>
      <Which lift={lift} leaf="lead" word="Lead" name={name} groups={groups} />
      <ValueField address={`${lift}/seconds`} of={name} />
      <SwitchKey address={`${lift}/alone`} of={name} word="one at a time" />
      <span className="flex-1" />
      <Button
        small
        tone="quiet"
        aria-label={`Remove the lift ${name}`}
        onClick={() => void link.do({ action: "remove_lift", lift }, { quiet: false })}
      >
        Remove
      </Button>
    </div>
  );
}

interface WhichProps {
  lift: string;
  leaf: "backing" | "lead";
  word: string;
  name: string;
  groups: readonly (readonly [string, string])[];
}

function Which({ lift, leaf, word, name, groups }: WhichProps) {
  const link = useLink();
  const group = useText(`${lift}/${leaf}`);
  return (
    <span className="flex items-center gap-1.5">
      <span className="text-soft">{word}</span>
      <Choice
        boxed
        label={`${word} group of ${name}`}
        value={group}
        options={[["", "none"], ...groups]}
        className="h-9 coarse:h-11 max-w-44"
        onChange={(to) => void link.put(`${lift}/${leaf}`, to || null, { quiet: false })}
      />
    </span>
  );
}
