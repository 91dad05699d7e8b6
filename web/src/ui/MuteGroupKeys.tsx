import type { ReactNode } from "react";
import { useClosing } from "../data/closing";
import { valueIn } from "../data/show";
import { useShow } from "../data/use";
import { MuteGroupKey } from "./MuteGroupKey";
import { InRow, useRows } from "./reach";

interface Props {
  /** So many at most; more stand in Mutes. */
  most?: number;
  className: string;
  children?: ReactNode;
}

/** The keys of the mute groups in use, one stop for the Tab key; nothing where there is none. */
export function MuteGroupKeys({ most, className, children }: Props) {
  const groups = useShow((state) => state.mute_groups);
  const shown = groups.slice(0, most).map((number) => `mute_group/${number}`);
  const locked = useShow((state) =>
    shown.filter((group) => valueIn(state, `${group}/safe`) === true).join(" "),
  );
  const rows = useRows(
    shown.filter((group) => !locked.split(" ").includes(group)),
    { across: true },
  );
  useClosing();
  if (groups.length === 0) return null;
  return (
    <div role="group" aria-label="Mutes" className={className} {...rows.hand}>
      {children}
      {shown.map((group) => (
        <InRow key={group} of={group} rows={rows}>
          <MuteGroupKey group={group} />
        </InRow>
      ))}
    </div>
  );
}
