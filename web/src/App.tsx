import { useEffect, useState } from "react";
import { Link, Route, Router, Switch } from "wouter";
import { getDesk, getMe, signOut } from "./data/http";
import { Link as ShowLink } from "./data/link";
import { tellHabits } from "./data/settings";
import { setDesk, store } from "./data/show";
import type { Me } from "./data/types";
import { LinkContext } from "./data/use";
import { Frame } from "./frame/Frame";
import { Waiting } from "./ui/Waiting";
import { Views } from "./Views";
import { AccountsView } from "./views/account/AccountsView";
import { AccountView } from "./views/account/AccountView";
import { BackupsView } from "./views/account/BackupsView";
import { ShowsView } from "./views/shows/ShowsView";

/** Which show: named by the address (?show=…), else the one opened last, else the first. */
function chosenShow(all: Me["shows"]): string | undefined {
  const shows = all.filter((show) => show.role !== "volunteer");
  const asked = new URLSearchParams(location.search).get("show") ?? localStorage.getItem("show");
  return (shows.find((show) => show.id === asked) ?? shows[0])?.id;
}

/** The link to the show; or, where there is none to open, who is here; or what went wrong. */
async function opened(): Promise<ShowLink | Me | string> {
  const me = await getMe();
  tellHabits(me.habits);
  const id = chosenShow(me.shows);
  if (!id && me.shows.length > 0) location.assign("/ride"); // all that is theirs is to ride
  if (!id) return me;
  localStorage.setItem("show", id);
  setDesk(me, await getDesk(id));
  return new ShowLink(id);
}

const AGAIN_MS = 3000;
// One link for the page's life: React may mount the application twice while developing.
let opening: Promise<ShowLink | Me | string> | undefined;

export function App() {
  const [link, setLink] = useState<ShowLink | Me | string | null>(null);
  useEffect(() => {
    let gone = false;
    let again: ReturnType<typeof setTimeout> | undefined;
    const open = () => {
      opening ??= opened();
      opening.then(setLink, (error: Error) => {
        opening = undefined;
        setLink(error.message);
        if (!gone) again = setTimeout(open, AGAIN_MS);
      });
    };
    open();
    return () => {
      gone = true;
      clearTimeout(again);
    };
  }, []);
  if (link === null) return <Waiting className="p-8" />;
  if (!(link instanceof ShowLink) && typeof link !== "string") return <NoShow me={link} />;
  if (typeof link === "string")
    return (
      <p className="p-8 text-coral" role="alert">
        {link} This page tries again by itself.
      </p>
    );
  return (
    <LinkContext value={link}>
      <Router>
        <Frame>
          <Views />
        </Frame>
      </Router>
    </LinkContext>
  );
}

/** Nothing to open: every show is to be brought back, or made, or shared by somebody. */
function NoShow({ me }: { me: Me }) {
  useEffect(() => store.setState({ me }), [me]);
  return (
    <Router>
      <main className="h-full flex flex-col px-4 max-w-[900px] mx-auto">
        <nav aria-label="Beside shows" className="flex gap-4 pt-3 text-soft">
          <Link href="/shows">Shows</Link>
          <Link href="/account">Your account</Link>
          {me.administrator && <Link href="/accounts">Accounts</Link>}
          {me.administrator && <Link href="/backups">Backups</Link>}
          <button type="button" className="ml-auto cursor-pointer" onClick={() => void signOut()}>
            Sign out
          </button>
        </nav>
        <Switch>
          <Route path="/account" component={AccountView} />
          <Route path="/accounts" component={AccountsView} />
          <Route path="/backups" component={BackupsView} />
          <Route component={ShowsView} />
        </Switch>
      </main>
    </Router>
  );
}
