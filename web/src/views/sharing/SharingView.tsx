import { useEffect, useState } from "react";
import { NO_SHARES } from "../../data/sharing";
import { store } from "../../data/show";
import { stripName, useLink, useShow } from "../../data/use";
import { useViewKeys } from "../../frame/useViewKeys";
import { ViewHead } from "../../frame/ViewHead";
import { Empty } from "../../ui/Panel";
import { Waiting } from "../../ui/Waiting";
import { GroupCard } from "./GroupCard";
import { NewSharing } from "./NewSharing";

/** Microphones that share one gain: who has the floor, each one's share, and what weights would do. */
export function SharingView() {
  const link = useLink();
  const told = useShow((state) => state.sharing);
  // levels typed to try, by group: this page's own, while nobody has come yet
  const [tried, setTried] = useState<Readonly<Record<string, string>>>({});
  useEffect(() => {
    link.watch({ sharing: true, tried });
  }, [link, tried]);
  useEffect(() => {
    return () => {
      link.watch({ sharing: false, tried: {} });
      store.setState({ sharing: null, shares: NO_SHARES }); // no more told: old ones say nothing
    };
  }, [link]);
  useViewKeys("sharing", {});
  const most = told?.used[1] ?? 1;
  return (
    <>
      <ViewHead title="Shared gain">{told && told.groups.length > 0 && <Floor />}</ViewHead>
      {told === null ? (
        <Waiting />
      ) : most === 0 ? (
        <Empty title="This desk shares no gain">
          <p>
            Its profile has no group for it. Another desk may: see Another desk, in the show's menu.
          </p>
        </Empty>
      ) : (
        <>
          <NewSharing />
          {told.groups.length === 0 ? (
            <Empty title="Nobody shares gain yet">
              <p>
                Say which microphones: of those who sit at a table, who speaks rises, the rest fall,
                and all together are as loud as one. Type their channels above, such as 1-8.
              </p>
            </Empty>
          ) : (
            <ul className="scrolls flex-1 min-h-0 flex flex-col gap-3 pr-1">
              {told.groups.map((group) => (
                <GroupCard
                  key={group.group}
                  group={group}
                  typed={tried[group.group] ?? ""}
                  onTry={(text) => setTried((all) => ({ ...all, [group.group]: text }))}
                />
              ))}
            </ul>
          )}
        </>
      )}
    </>
  );
}

/** Who has the floor, of all groups, in words. */
function Floor() {
  const names = useShow((state) =>
    [...state.shares.groups.values()]
      .filter((group) => group.floor)
      .map((group) => stripName(state, group.floor))
      .join(", "),
  );
  const measured = useShow((state) => state.shares.groups.size > 0);
  return (
    <span className={names ? "text-sun-text" : "text-soft"}>
      {names ? `${names} has the floor` : measured ? "nobody speaks" : "no stage tells levels"}
    </span>
  );
}
