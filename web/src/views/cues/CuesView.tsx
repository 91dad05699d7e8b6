import { useEffect, useState } from "react";
import { useLocation, useRoute } from "wouter";
import { store } from "../../data/show";
import { useLink, useShow } from "../../data/use";
import { useViewKeys } from "../../frame/useViewKeys";
import { ViewHead } from "../../frame/ViewHead";
import { RadioKeys } from "../../ui/RadioKeys";
import { Waiting } from "../../ui/Waiting";
import { ArmKeys } from "./ArmKeys";
import { CueTable } from "./CueTable";
import { Machine } from "./Machine";
import { NewCue } from "./NewCue";
import { ToldList } from "./ToldList";
import { WaysIn } from "./WaysIn";

const SIDES = [
  ["list", "Cues"],
  ["ways", "Ways in"],
  ["machine", "Cue machine"],
] as const;
type Side = (typeof SIDES)[number][0];

/** Cues from outside: what comes and what it does, by which ways, and what became of each. */
export function CuesView() {
  const link = useLink();
  const list = useShow((state) => state.cueList);
  const here = useShow((state) => state.cues);
  const [, navigate] = useLocation();
  const [, at] = useRoute("/cues/:side?");
  const side = SIDES.find(([key]) => key === at?.side)?.[0] ?? "list";
  const [text, setText] = useState("");
  useEffect(() => {
    link.watch({ cue_list: true });
    return () => {
      link.watch({ cue_list: false });
      store.setState({ cueList: null, machine: null });
    };
  }, [link]);
  useViewKeys("cues", {});
  return (
    <>
      <ViewHead title="Cues">
        <RadioKeys<Side>
          label="Cues, ways in, or cue machine"
          keys={SIDES}
          chosen={side}
          onChoose={(to) => navigate(to === "list" ? "/cues" : `/cues/${to}`)}
        />
        <span className="flex-1" />
        {here && <ArmKeys here={here} />}
      </ViewHead>
      {list === null || here === null ? (
        <Waiting />
      ) : side === "ways" ? (
        <WaysIn here={here} />
      ) : side === "machine" ? (
        <Machine here={here} sheet={list.sheet} />
      ) : (
        <div className="scrolls flex-1 min-h-0 flex flex-col gap-3 pr-1">
          <NewCue text={text} setText={setText} without={list.scenes_without} />
          <div className="cues-both">
            <CueTable cues={list.cues} />
            <ToldList here={here} onTake={(came) => setText(`${came} -> `)} />
          </div>
        </div>
      )}
    </>
  );
}
