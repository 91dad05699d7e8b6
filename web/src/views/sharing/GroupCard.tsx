import { useState } from "react";
import { numberOf } from "../../data/address";
import type { SharingRow } from "../../data/types";
import { useLink, useShow, useText, useValue } from "../../data/use";
import { levelText } from "../../data/words";
import { Button } from "../../ui/Button";
import { Entry } from "../../ui/Entry";
import { NameField } from "../../ui/NameField";
import { RadioKeys } from "../../ui/RadioKeys";
import { InRow, useRows } from "../../ui/reach";
import { TypedField } from "../../ui/TypedField";
import { ValueField } from "../strip/ValueField";
import { Bands } from "./Bands";
import { MemberRow } from "./MemberRow";

interface Props {
  group: SharingRow;
  /** Levels typed to try; "": those expected. */
  typed: string;
  onTry: (text: string) => void;
}

/** One group: how it stands, a row for each member, the last minute, and what weights would do. */
export function GroupCard({ group, typed, onTry }: Props) {
  const name = useText(`${group.group}/name`);
  const rows = useRows(group.members.map((one) => one.strip));
  return (
    <li
      data-sharing={group.group}
      className="rounded-xl border border-line bg-floor p-3 flex flex-col gap-3"
    >
      <Terms group={group.group} name={name} />
      <div>
        <Heads typed={typed !== ""} />
        <ul aria-label={`Shares of ${name}`} {...rows.hand}>
          {group.members.map((member, place) => (
            <InRow key={member.strip} of={member.strip} rows={rows}>
              <MemberRow group={group} member={member} place={place} />
            </InRow>
          ))}
        </ul>
      </div>
      <Bands group={group} name={name} />
      <Trying group={group} name={name} typed={typed} onTry={onTry} />
      <Place group={group} name={name} />
    </li>
  );
}

function Heads({ typed }: { typed: boolean }) {
  return (
    <div aria-hidden className="row-share row-heads text-soft text-[13px] text-right">
      <span className="text-left">Member</span>
      <span className="text-left">Share now</span>
      <span>Gain</span>
      <span>Weight</span>
      <span>{typed ? "Tried at" : "Expected"}</span>
      <span>All speak</span>
      <span title="The weight above which it would be first">Wins above</span>
      <span />
    </div>
  );
}

/** Its name, its terms, who joins; the stage lets it talk; its end. */
function Terms({ group, name }: { group: string; name: string }) {
  const link = useLink();
  const talking = useShow((state) => state.shares.talking.includes(group));
  const over = useShow((state) => state.shares.groups.get(group)?.over_db ?? 0);
  return (
    <div className="flex items-center gap-x-3 gap-y-2 flex-wrap">
      <NameField
        of={group}
        label={`Name of group ${numberOf(group)} that shares gain`}
        className="w-44 h-9 coarse:h-11 font-title font-semibold text-[16px]"
      />
      <ValueField address={`${group}/time`} of={name} />
      <ValueField address={`${group}/limit`} of={name} />
      {over >= 0.05 && (
        <span className="text-sun-text">{levelText(over)} dB above one microphone</span>
      )}
      <TypedField
        boxed
        label={`Who joins ${name}`}
        value=""
        placeholder="more: 9, 12"
        className="w-28 h-8 coarse:h-11"
        onCommit={(strips) =>
          void link.do({ action: "join_sharing", group, strips }, { quiet: false })
        }
      />
      <span className="flex-1" />
      <Button
        small
        aria-pressed={talking}
        title="On the stand-in stage: they take turns, overlap, cough and laugh"
        onClick={() => link.talk(group, !talking)}
      >
        {talking ? "Let them be silent" : "Let them talk"}
      </Button>
      <Button
        small
        tone="quiet"
        aria-label={`End it, ${name}`}
        onClick={() => void link.do({ action: "clear_sharing", group }, { quiet: false })}
      >
        End it
      </Button>
    </div>
  );
}

interface TryingProps extends Props {
  name: string;
}

/** Levels typed before the guests come: who wins, by how much. */
function Trying({ group, name, typed, onTry }: TryingProps) {
  const [text, setText] = useState(typed);
  const settle = () => text.trim() !== typed && onTry(text.trim());
  return (
    <div className="flex items-center gap-x-3 gap-y-1 flex-wrap">
      <form
        className="contents"
        aria-label={`Try levels in ${name}`}
        onSubmit={(event) => {
          event.preventDefault();
          settle();
        }}
        onBlur={settle}
      >
        <span className="text-soft">What if</span>
        <Entry
          small
          label={`Levels to try in ${name}`}
          placeholder="all at -20, 6 at -26"
          value={text}
          onChange={setText}
          className="w-64 phone:w-full"
        />
      </form>
      <span role="status" className={group.refused ? "text-coral" : "text-paper"}>
        {group.refused || `${typed ? "Then: " : "As expected: "}${group.says}`}
      </span>
    </div>
  );
}

const PLACES = [
  ["behind_fader", "Behind the fader"],
  ["before_fader", "Before the fader"],
] as const;

/** Where it stands, with what each place does to ears, tracks and streams, told before it is moved. */
function Place({ group, name }: { group: SharingRow; name: string }) {
  const link = useLink();
  const place = useValue(`${group.group}/place`);
  return (
    <div className="flex flex-col gap-1">
      <span className="self-start">
        <RadioKeys
          label={`Where ${name} shares`}
          keys={PLACES}
          chosen={place === "before_fader" ? "before_fader" : "behind_fader"}
          onChoose={(key) => void link.put(`${group.group}/place`, key)}
        />
      </span>
      {PLACES.map(([key, word]) => (
        <p key={key} className={key === place ? "text-paper" : "text-faint"}>
          {key === place ? "" : `${word}: `}
          {key === "behind_fader" ? group.behind : group.before}
        </p>
      ))}
    </div>
  );
}
