import { lazy, Suspense } from "react";
import { Redirect, Route, Switch } from "wouter";
import { useHabits } from "./data/settings";
import { MOVED, VIEW_WORD } from "./frame/places";
import { Waiting } from "./ui/Waiting";
import { AccountsView } from "./views/account/AccountsView";
import { AccountView } from "./views/account/AccountView";
import { BackupsView } from "./views/account/BackupsView";
import { AssignmentsView } from "./views/assignments/AssignmentsView";
import { BanksView } from "./views/banks/BanksView";
import { CastView } from "./views/cast/CastView";
import { CheckView } from "./views/check/CheckView";
import { CrewView } from "./views/crew/CrewView";
import { CuesView } from "./views/cues/CuesView";
import { EarsView } from "./views/ears/EarsView";
import { EffectsView } from "./views/effects/EffectsView";
import { HearView } from "./views/hear/HearView";
import { HistoryView } from "./views/history/HistoryView";
import { LiftsView } from "./views/lifts/LiftsView";
import { LinesView } from "./views/lines/LinesView";
import { MicCheckView } from "./views/miccheck/MicCheckView";
import { MixesView } from "./views/mixes/MixesView";
import { OutputsView } from "./views/outputs/OutputsView";
import { PaperView } from "./views/paper/PaperView";
import { PatchView } from "./views/patch/PatchView";
import { RoutingView } from "./views/routing/RoutingView";
import { RulersView } from "./views/rulers/RulersView";
import { RunView } from "./views/run/RunView";
import { ScenesView } from "./views/scenes/ScenesView";
import { SettingsView } from "./views/settings/SettingsView";
import { SharingView } from "./views/sharing/SharingView";
import { ShowsView } from "./views/shows/ShowsView";
import { StripView } from "./views/strip/StripView";
import { TracksView } from "./views/tracks/TracksView";
import { WrongView } from "./views/wrong/WrongView";

const GuideView = lazy(() =>
  import("./views/guide/GuideView").then((all) => ({ default: all.GuideView })),
);

/** Every view at its address. */
export function Views() {
  return (
    <Switch>
      <Route path="/lines" component={LinesView} />
      <Route path="/patch" component={PatchView} />
      <Route path="/mixes" component={MixesView} />
      <Route path="/mixes/:mix" component={MixesView} />
      <Route path="/scenes/:scene?" component={ScenesView} />
      <Route path="/run" component={RunView} />
      <Route path="/cues/:side?" component={CuesView} />
      <Route path="/outputs" component={OutputsView} />
      <Route path="/dcas/:number?">
        <RulersView key="dca" kind="dca" />
      </Route>
      <Route path="/mutes/:number?">
        <RulersView key="mute_group" kind="mute_group" />
      </Route>
      <Route path="/gangs/:number?">
        <RulersView key="gang" kind="gang" />
      </Route>
      <Route path="/strip/:kind?/:number?" component={StripView} />
      <Route path="/ears/:mix?" component={EarsView} />
      <Route path="/effects" component={EffectsView} />
      <Route path="/routing" component={RoutingView} />
      <Route path="/assignments" component={AssignmentsView} />
      <Route path="/tracks/:side?" component={TracksView} />
      <Route path="/sharing" component={SharingView} />
      <Route path="/lifts" component={LiftsView} />
      <Route path="/banks" component={BanksView} />
      <Route path="/check" component={CheckView} />
      <Route path="/cast" component={CastView} />
      <Route path="/miccheck" component={MicCheckView} />
      <Route path="/crew" component={CrewView} />
      <Route path="/account" component={AccountView} />
      <Route path="/accounts" component={AccountsView} />
      <Route path="/backups" component={BackupsView} />
      <Route path="/paper" component={PaperView} />
      <Route path="/wrong/:part?" component={WrongView} />
      <Route path="/settings" component={SettingsView} />
      {Object.entries(MOVED).map(([from, to]) => (
        <Route key={from} path={`/${from}`}>
          <Redirect to={to} replace />
        </Route>
      ))}
      <Route path="/guide">
        <Suspense fallback={<Waiting className="py-5" />}>
          <GuideView />
        </Suspense>
      </Route>
      <Route path="/history" component={HistoryView} />
      <Route path="/shows" component={ShowsView} />
      <Route path="/hears" component={HearView} />
      <Route>
        <Start />
      </Route>
    </Switch>
  );
}

/** Where a person begins. */
function Start() {
  const start = useHabits((now) => now.start);
  return <Redirect to={VIEW_WORD[start] ? `/${start}` : "/hears"} replace />;
}
