import { lazy, Suspense, useEffect, useState } from "react";
import { Redirect, Route, Router, Switch } from "wouter";
import { getDesk, getMe } from "./data/http";
import { Link } from "./data/link";
import { setDesk, store } from "./data/show";
import type { Me } from "./data/types";
import { LinkContext } from "./data/use";
import { Frame } from "./frame/Frame";
import { Waiting } from "./ui/Waiting";
import { BanksView } from "./views/banks/BanksView";
import { CastView } from "./views/cast/CastView";
import { CheckView } from "./views/check/CheckView";
import { EffectsView } from "./views/effects/EffectsView";
import { FindingsView } from "./views/findings/FindingsView";
import { HearView } from "./views/hear/HearView";
import { HistoryView } from "./views/history/HistoryView";
import { LiftsView } from "./views/lifts/LiftsView";
import { LinesView } from "./views/lines/LinesView";
import { MicCheckView } from "./views/miccheck/MicCheckView";
import { MixesView } from "./views/mixes/MixesView";
import { OutputsView } from "./views/outputs/OutputsView";
import { PaperView } from "./views/paper/PaperView";
import { PatchView } from "./views/patch/PatchView";
import { PromisesView } from "./views/promises/PromisesView";
import { RoutingView } from "./views/routing/RoutingView";
import { RulersView } from "./views/rulers/RulersView";
import { RunView } from "./views/run/RunView";
import { ScenesView } from "./views/scenes/ScenesView";
import { ShowsView } from "./views/shows/ShowsView";
import { StripView } from "./views/strip/StripView";

const GuideView = lazy(() =>
  import("./views/guide/GuideView").then((all) => ({ default: all.GuideView })),
);

/** Which show: named by the address (?show=…), else the one opened last, else the first. */
function chosenShow(shows: { id: string }[]): string | undefined {
  const asked = new URLSearchParams(location.search).get("show") ?? localStorage.getItem("show");
  return (shows.find((show) => show.id === asked) ?? shows[0])?.id;
}

/** The link to the show; or, where there is none to open, who is here; or what went wrong. */
async function opened(): Promise<Link | Me | string> {
  const me = await getMe();
  const id = chosenShow(me.shows);
  if (!id) return me;
  localStorage.setItem("show", id);
  setDesk(me, await getDesk(id));
  return new Link(id);
}

// One link for the page's life: React may mount the application twice while developing.
let opening: Promise<Link | Me | string> | undefined;

export function App() {
  const [link, setLink] = useState<Link | Me | string | null>(null);
  useEffect(() => {
    opening ??= opened();
    opening.then(setLink, (error: Error) => setLink(error.message));
  }, []);
  useEffect(() => {
    const theme = localStorage.getItem("theme");
    if (theme) document.documentElement.dataset.theme = theme;
  }, []);

  if (link === null) return <Waiting className="p-8">Opening the show…</Waiting>;
  if (!(link instanceof Link) && typeof link !== "string") return <NoShow me={link} />;
  if (typeof link === "string")
    return (
      <p className="p-8 text-coral" role="alert">
        {link}
      </p>
    );
  return (
    <LinkContext value={link}>
      <Router>
        <Frame>
          <Switch>
            <Route path="/lines" component={LinesView} />
            <Route path="/patch" component={PatchView} />
            <Route path="/mixes" component={MixesView} />
            <Route path="/mixes/:mix" component={MixesView} />
            <Route path="/scenes/:scene?" component={ScenesView} />
            <Route path="/run" component={RunView} />
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
            <Route path="/effects" component={EffectsView} />
            <Route path="/routing" component={RoutingView} />
            <Route path="/promises" component={PromisesView} />
            <Route path="/lifts" component={LiftsView} />
            <Route path="/banks" component={BanksView} />
            <Route path="/check" component={CheckView} />
            <Route path="/cast" component={CastView} />
            <Route path="/miccheck" component={MicCheckView} />
            <Route path="/paper" component={PaperView} />
            <Route path="/findings" component={FindingsView} />
            <Route path="/guide">
              <Suspense fallback={<Waiting className="py-5">Opening the guide…</Waiting>}>
                <GuideView />
              </Suspense>
            </Route>
            <Route path="/history" component={HistoryView} />
            <Route path="/shows" component={ShowsView} />
            <Route path="/hears" component={HearView} />
            <Route>
              <Redirect to="/hears" replace />
            </Route>
          </Switch>
        </Frame>
      </Router>
    </LinkContext>
  );
}

/** Nothing to open: every show is to be brought back, or made. */
function NoShow({ me }: { me: Me }) {
  useEffect(() => store.setState({ me }), [me]);
  return (
    <main className="h-full flex flex-col px-4 max-w-[900px] mx-auto">
      <ShowsView />
    </main>
  );
}
