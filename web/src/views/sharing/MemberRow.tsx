import { Link as RouteLink } from "wouter";
import type { SharerRow, SharingRow } from "../../data/types";
import { stripName, useLink, useShow } from "../../data/use";
import { levelText } from "../../data/words";
import { Button } from "../../ui/Button";
import { SwitchKey } from "../../ui/SwitchKey";
import { ValueField } from "../strip/ValueField";
import { bandColour } from "./bands";

interface Props {
  group: SharingRow;
  member: SharerRow;
  place: number;
}

const SILENT: Readonly<Record<string, string>> = {
  muted: "silent",
  out: "out",
  held: "held open",
};

/** A member: its share as length and number, its weight, and what comes of it at levels expected. */
export function MemberRow({ group, member, place }: Props) {
  const link = useLink();
  const { strip } = member;
  const name = useShow((state) => stripName(state, strip));
  const now = useShow((state) =>
    state.shares.groups.get(group.group)?.members.find((one) => one.strip === strip),
  );
  const floor = useShow((state) => state.shares.groups.get(group.group)?.floor === strip);
  const standing = SILENT[member.standing];
  const wins = group.wins === strip;
  return (
    <li
      className="row-share"
      data-row={strip}
      data-subject={strip}
      data-floor={floor}
      data-standing={member.standing}
    >
      <RouteLink
        to={`/strip/${strip}`}
        className="flex items-center gap-2 min-w-0 min-h-9 coarse:min-h-11 [grid-area:name]"
      >
        <span
          aria-hidden
          className="w-3.5 h-3.5 rounded shrink-0"
          style={{ background: bandColour(place) }}
        />
        <bdi className={`truncate ${floor ? "text-sun-text font-semibold" : ""}`}>{name}</bdi>
      </RouteLink>
      <div
        role="meter"
        aria-label={`Share of ${name}`}
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={Math.round((now?.share ?? 0) * 100)}
        aria-valuetext={now?.says ?? "nothing measured"}
        className="relative h-5 rounded-md bg-raise overflow-hidden [grid-area:bar]"
      >
        <div
          className="drawn absolute inset-y-0 left-0"
          style={{ width: `${(now?.share ?? 0) * 100}%`, background: bandColour(place) }}
        />
      </div>
      <span className="text-right whitespace-nowrap [grid-area:gain]" data-testid="share">
        {now?.says ?? standing ?? "—"}
      </span>
      <span
        className="flex items-center justify-end gap-1 whitespace-nowrap narrow:justify-start [grid-area:weight]"
        data-word="weight"
      >
        <span className="rounded-lg border border-edge bg-card">
          <ValueField bare address={`${strip}/sharing/weight`} of={name} />
        </span>
      </span>
      <span
        className="flex items-center justify-end gap-1 whitespace-nowrap narrow:justify-start text-soft [grid-area:level]"
        data-word="at"
      >
        {member.level_dbfs === null ? "unknown" : levelText(member.level_dbfs)}
      </span>
      <span
        className="flex items-center justify-end gap-1 whitespace-nowrap narrow:justify-start [grid-area:all]"
        data-word="all speak"
      >
        <span className={wins ? "text-sea font-semibold" : ""}>
          {standing ?? (member.gain_db === null ? "—" : levelText(member.gain_db))}
          {wins && " wins"}
        </span>
      </span>
      <span
        className="flex items-center justify-end gap-1 whitespace-nowrap narrow:justify-start text-soft [grid-area:needs]"
        data-word="wins above"
      >
        {member.needs_db === null ? "—" : levelText(member.needs_db)}
      </span>
      <span className="flex items-center gap-1.5 justify-end [grid-area:keys]">
        <SwitchKey address={`${strip}/sharing/held`} of={name} word="Held open" tone="sea" />
        <SwitchKey address={`${strip}/sharing/out`} of={name} word="Out" tone="coral" />
        <Button
          small
          tone="quiet"
          aria-label={`Take ${name} out of the group`}
          title="It shares gain no more"
          onClick={() => void link.do({ action: "leave_sharing", strips: [strip] })}
        >
          ✕
        </Button>
      </span>
    </li>
  );
}
