import { type ReactNode, useEffect, useState } from "react";
import type { components } from "../data/generated/api";
import { getMe, signOut } from "../data/http";
import { DeskLink, type State } from "../phone/link";
import { Standing } from "../phone/Standing";
import { useAwake } from "../phone/useAwake";
import { RideView } from "./RideView";

type Schemas = components["schemas"];
export type Rides = Schemas["Rides"];
export type RideAsk = Schemas["RideDo"]["ask"];
export type RideLink = DeskLink<Rides, RideAsk>;

const PAGE = /^\/ride\/([0-9a-f-]{36})$/;
interface Ridden {
  id: string;
  name: string;
}

/** A volunteer's page: what was given to them of a show, and nothing else. */
export function RideApp() {
  const [shows, setShows] = useState<readonly Ridden[] | null>(null);
  const [fault, setFault] = useState("");
  const [id, setId] = useState(() => PAGE.exec(location.pathname)?.[1] ?? "");
  useEffect(() => {
    getMe().then(
      ({ shows: all }) => {
        const mine = all.filter((show) => show.role === "volunteer");
        setShows(mine);
        setId((one) => one || (mine.length === 1 ? mine[0]!.id : ""));
      },
      (error: Error) => setFault(error.message),
    );
  }, []);
  if (fault) return <Words>{fault}</Words>;
  if (!shows) return <Words>One moment…</Words>;
  if (shows.length === 0 && !id)
    return <Words next={<Out />}>Nothing is given to you yet. Ask the engineer.</Words>;
  if (!id)
    return (
      <Words next={<Out />}>
        <span className="block pb-4">Which show?</span>
        {shows.map((show) => (
          <button
            key={show.id}
            type="button"
            onClick={() => setId(show.id)}
            className="block w-full h-14 mb-2 px-5 rounded-xl bg-raise text-paper font-semibold"
          >
            <span dir="auto">{show.name}</span>
          </button>
        ))}
      </Words>
    );
  return <Open key={id} id={id} others={shows.length > 1 ? () => setId("") : undefined} />;
}

const Words = ({ children, next }: { children: ReactNode; next?: ReactNode }) => (
  <main className="h-full flex flex-col items-center justify-center gap-6 p-8 text-center text-[17px] text-soft">
    <div role="status" className="w-full max-w-[360px]">
      {children}
    </div>
    {next}
  </main>
);

const Out = () => (
  <button
    type="button"
    onClick={() => void signOut()}
    className="h-11 px-4 rounded-xl text-soft border border-edge"
  >
    Sign out
  </button>
);

function Open({ id, others }: { id: string; others?: () => void }) {
  const [state, setState] = useState<State<Rides> | null>(null);
  const [link, setLink] = useState<RideLink | null>(null);
  useEffect(() => {
    const how = {
      path: `/live/${id}/ride`,
      key: `ride/${id}`,
      whole: "rides",
      holds: true,
    } as const;
    const one: RideLink = new DeskLink(how, setState);
    setLink(one);
    return () => one.stop();
  }, [id]);
  useAwake();
  if (state?.status === "ended")
    return (
      <Words next={<Out />}>
        Nothing is given to you in this show just now. Ask the engineer, and load this page again.
      </Words>
    );
  if (!state?.told || !link) return <Words>Looking for the desk…</Words>;
  return (
    <div className="h-full flex flex-col max-w-[760px] mx-auto">
      <header className="shrink-0 flex items-center gap-3 px-3 pt-2 pb-2">
        <img src="/static/mark.svg" alt="" className="w-8 h-8" />
        <h1
          dir="auto"
          className="min-w-0 flex-1 font-title font-bold text-[20px] leading-6 truncate"
        >
          {state.told.show || "Your faders"}
        </h1>
        {others && (
          <button type="button" onClick={others} className="h-11 px-2 text-[13px] text-soft">
            other show
          </button>
        )}
        <Standing status={state.status} waiting={state.waiting} kept="ride/day" />
      </header>
      <RideView told={state.told} says={state.says} link={link} />
      <footer className="shrink-0 px-3 py-2 flex justify-end">
        <Out />
      </footer>
    </div>
  );
}
