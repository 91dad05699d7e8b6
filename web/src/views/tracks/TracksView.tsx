import { useEffect } from "react";
import { useLocation, useRoute } from "wouter";
import { store } from "../../data/show";
import { useLink, useShow } from "../../data/use";
import { useViewKeys } from "../../frame/useViewKeys";
import { ViewHead } from "../../frame/ViewHead";
import { Empty } from "../../ui/Panel";
import { RadioKeys } from "../../ui/RadioKeys";
import { Waiting } from "../../ui/Waiting";
import { NewWishes } from "./NewWishes";
import { PlanPanel } from "./PlanPanel";
import { Playback } from "./Playback";
import { Recorder } from "./Recorder";
import { TrackList } from "./TrackList";
import { WishList } from "./WishList";

const SIDES = [
  ["record", "Record"],
  ["back", "Play back"],
] as const;

/** What is recorded on which track: wishes, the best plan for them, and the tracks' way back. */
export function TracksView() {
  const link = useLink();
  const told = useShow((state) => state.tracks);
  const [, navigate] = useLocation();
  const [back] = useRoute("/tracks/back");
  useEffect(() => {
    link.watch({ tracks: true });
    return () => {
      link.watch({ tracks: false });
      store.setState({ tracks: null, planning: null, plan: null });
    };
  }, [link]);
  useViewKeys("tracks", {});
  return (
    <>
      <ViewHead title="Tracks">
        <RadioKeys
          label="Record or play back"
          keys={SIDES}
          chosen={back ? "back" : "record"}
          onChoose={(side) => navigate(side === "back" ? "/tracks/back" : "/tracks")}
        />
        {told && <Recorder told={told} />}
      </ViewHead>
      {told === null ? (
        <Waiting />
      ) : told.refused ? (
        <Empty title="No recorder">
          <p>{told.refused}</p>
        </Empty>
      ) : back ? (
        <Playback told={told} />
      ) : (
        <div className="scrolls flex-1 min-h-0 flex flex-col gap-3 pr-1">
          <NewWishes />
          <div className="tracks-both">
            <WishList told={told} />
            <PlanPanel told={told} />
            <TrackList told={told} />
          </div>
        </div>
      )}
    </>
  );
}
