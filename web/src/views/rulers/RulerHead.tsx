import { memo } from "react";
import { Link as RouteLink } from "wouter";
import { numberOf } from "../../data/address";
import { valueIn } from "../../data/show";
import type { Ask } from "../../data/types";
import { stripName, useLevel, useLink, useOn, useShow } from "../../data/use";
import { useTabIndex } from "../../ui/reach";
import { LevelField, MuteKey } from "../../ui/StripKeys";
import { SwitchKey } from "../../ui/SwitchKey";
import { Toggle } from "../../ui/Toggle";
import { TypedField } from "../../ui/TypedField";
import { carriesText } from "./GangHand";
import { KIND, type Kind, stripsText } from "./kinds";

interface Props {
  ruler: string;
  kind: Kind;
  width: number;
  onAsk: (ask: Ask) => void;
}

/** Head of a column: its name, which leads to its page, its level and its key. */
export const RulerHead = memo(function RulerHead({ ruler, kind, width, onAsk }: Props) {
  const name = useShow((state) => stripName(state, ruler));
  const colour = useShow((state) => String(valueIn(state, `${ruler}/colour`)));
  const members = useShow((state) => state.members.get(ruler)?.size ?? 0);
  const text = useShow((state) => stripsText(state.members.get(ruler) ?? []));
  return (
    <div
      role="columnheader"
      data-column-head={ruler}
      data-row={ruler}
      className="shrink-0 flex flex-col gap-1 justify-end px-1 pb-1 border-r border-ink"
      style={{ width, borderTop: `4px solid var(--strip-${colour})` }}
    >
      <RouteLink
        to={`/${KIND[kind].view}/${numberOf(ruler)}`}
        tabIndex={useTabIndex()}
        dir="auto"
        className="in-text text-[13px] leading-tight font-semibold line-clamp-2 break-words hover:underline flex-1 min-h-0 pt-1"
        title={`${name}: ${members} members`}
      >
        {name}
      </RouteLink>
      <TypedField
        label={`Members of ${name}`}
        value={text}
        placeholder="1-8, Kick, drums"
        title={text || "Members, as 1-8, 11, mix 1-4"}
        className="w-full h-6 coarse:h-11 text-[12.5px] text-soft"
        onCommit={(strips) => onAsk({ action: "members", ruler, strips, exactly: true, on: true })}
      />
      {kind === "dca" ? (
        <DcaHand ruler={ruler} name={name} />
      ) : kind === "gang" ? (
        <GangKeys ruler={ruler} name={name} />
      ) : (
        <GroupKeys ruler={ruler} name={name} />
      )}
    </div>
  );
});

function DcaHand({ ruler, name }: { ruler: string; name: string }) {
  const atZero = useLevel(`${ruler}/fader`) === 0;
  return (
    <>
      <LevelField
        strip={ruler}
        label={`Level of ${name} in dB`}
        className={`w-full h-6 coarse:h-11 ${atZero ? "text-soft" : "text-sea font-semibold"}`}
      />
      <MuteKey strip={ruler} name={name} />
    </>
  );
}

function GroupKeys({ ruler, name }: { ruler: string; name: string }) {
  const link = useLink();
  const on = useOn(`${ruler}/on`);
  const hard = useOn(`${ruler}/hard`);
  const safe = useOn(`${ruler}/safe`);
  return (
    <>
      <span className="text-[12px] text-faint h-4 whitespace-nowrap">
        {[hard ? "seal" : "mute", safe && "locked", safe && on && "on"].filter(Boolean).join(", ")}
      </span>
      {safe ? (
        <Toggle
          label={`unlock ${name}`}
          pressed={false}
          onChange={() => void link.put(`${ruler}/safe`, false)}
        >
          unlock
        </Toggle>
      ) : (
        <SwitchKey
          address={`${ruler}/on`}
          of={name}
          word={hard ? ["seal", "sealed"] : ["mute", "muted"]}
          tone="coral"
        />
      )}
    </>
  );
}

function GangKeys({ ruler, name }: { ruler: string; name: string }) {
  const carries = useShow((state) => carriesText(state, ruler));
  return (
    <>
      <span
        className="text-[12px] text-faint leading-tight line-clamp-2"
        title={`Moves together: ${carries}`}
      >
        {carries}
      </span>
      <SwitchKey address={`${ruler}/suspended`} of={name} word={["rest", "resting"]} tone="sun" />
    </>
  );
}
