import { useEffect, useState } from "react";
import { Router } from "wouter";
import { getDesk, getMe } from "./data/http";
import { Link } from "./data/link";
import { tellHabits } from "./data/settings";
import { setDesk, store } from "./data/show";
import type { Me } from "./data/types";
import { LinkContext } from "./data/use";
import { Frame } from "./frame/Frame";
import { Waiting } from "./ui/Waiting";
import { Views } from "./Views";
import { ShowsView } from "./views/shows/ShowsView";

/** Which show: named by the address (?show=…), else the one opened last, else the first. */
function chosenShow(shows: { id: string }[]): string | undefined {
  const asked = new URLSearchParams(location.search).get("show") ?? localStorage.getItem("show");
  return (shows.find((show) => show.id === asked) ?? shows[0])?.id;
}

/** The link to the show; or, where there is none to open, who is here; or what went wrong. */
async function opened(): Promise<Link | Me | string> {
  const me = await getMe();
  tellHabits(me.habits);
  const id = chosenShow(me.shows);
  if (!id) return me;
  localStorage.setItem("show", id);
  setDesk(me, await getDesk(id));
  return new Link(id);
}

const AGAIN_MS = 3000;
// One link for the page's life: React may mount the application twice while developing.
let opening: Promise<Link | Me | string> | undefined;

export function App() {
  const [link, setLink] = useState<Link | Me | string | null>(null);
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
  if (!(link instanceof Link) && typeof link !== "string") return <NoShow me={link} />;
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

/** Nothing to open: every show is to be brought back, or made. */
function NoShow({ me }: { me: Me }) {
  useEffect(() => store.setState({ me }), [me]);
  return (
    <main className="h-full flex flex-col px-4 max-w-[900px] mx-auto">
      <ShowsView />
    </main>
  );
}
