import { type ReactNode, useEffect, useState } from "react";
import { PhoneLink, type State } from "./link";
import { PhoneView } from "./PhoneView";
import { Standing } from "./Standing";
import { useAwake } from "./useAwake";

const LAST = "mine/last";
const PAGE = /^\/mine\/([0-9a-f-]{36})$/;

type Entering = { link: string } | { wrong: string } | { names: readonly string[] } | null;

/** What opens a page: the token of a link, or a name with its short code. */
type Key = { token: string } | { name: string; code: string };

const AWAY = "The desk cannot be reached. Check the network, and load this page again.";
const NO_LINK = "Open the link that the desk gave you: this page has none.";

/** The token of a link is exchanged for a cookie, and goes from the address. */
async function enter(): Promise<Entering> {
  const token = location.hash.slice(1);
  // opened from the home screen: the link that was open last
  const known = PAGE.exec(location.pathname)?.[1] ?? localStorage.getItem(LAST);
  if (token) return opened({ token });
  return known ? { link: known } : byName();
}

/** Exchange a key for the cookie of its link. */
async function opened(key: Key): Promise<{ link: string } | { wrong: string }> {
  try {
    const response = await fetch("/mine/enter", {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify(key),
    });
    const body = (await response.json()) as { link?: string; message?: string };
    if (!response.ok || !body.link) return { wrong: body.message ?? "This link does not open." };
    history.replaceState(null, "", `/mine/${body.link}`);
    localStorage.setItem(LAST, body.link);
    return { link: body.link };
  } catch {
    return { wrong: AWAY };
  }
}

/** Whose short codes stand, to pick one's name. */
async function byName(): Promise<Entering> {
  try {
    const { names } = (await (await fetch("/mine/names")).json()) as { names: string[] };
    return names.length > 0 ? { names } : { wrong: NO_LINK };
  } catch {
    return { wrong: AWAY };
  }
}

export function PhoneApp() {
  const [entering, setEntering] = useState<Entering>(null);
  useEffect(() => {
    void enter().then(setEntering);
  }, []);
  if (!entering) return <Words>One moment…</Words>;
  if ("wrong" in entering) return <Words>{entering.wrong}</Words>;
  if ("names" in entering) return <PickName names={entering.names} onOpen={setEntering} />;
  return (
    <Open
      link={entering.link}
      onEnded={() => {
        localStorage.removeItem(LAST);
        history.replaceState(null, "", "/mine");
        void byName().then(setEntering);
      }}
    />
  );
}

/** Without a link at hand: one's name, and the short code that the desk gave. */
export function PickName({
  names,
  onOpen,
}: {
  names: readonly string[];
  onOpen: (entering: { link: string }) => void;
}) {
  const [name, setName] = useState(names.length === 1 ? names[0]! : "");
  const [code, setCode] = useState("");
  const [wrong, setWrong] = useState("");
  const [asking, setAsking] = useState(false);
  const go = async () => {
    setAsking(true);
    const found = await opened({ name, code: code.replace(/\s/g, "") });
    setAsking(false);
    if ("link" in found) return onOpen(found);
    setWrong(found.wrong);
    setCode("");
  };
  const field = "h-14 rounded-xl bg-card text-paper border border-line px-3 text-[20px] w-full";
  return (
    <main className="h-full overflow-y-auto grid place-items-center p-6">
      <form
        className="w-full max-w-[340px] flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          void go();
        }}
      >
        <img src="/static/mark.svg" alt="" className="w-12 h-12" />
        <h1 className="font-title font-bold text-[24px]">Your own mix</h1>
        <label className="flex flex-col gap-1 text-soft">
          Your name
          <select
            required
            value={name}
            onChange={(event) => setName(event.currentTarget.value)}
            className={field}
          >
            <option value="">Pick it</option>
            {names.map((one) => (
              <option key={one}>{one}</option>
            ))}
          </select>
        </label>
        <label className="flex flex-col gap-1 text-soft">
          The code from the desk
          <input
            required
            inputMode="numeric"
            autoComplete="one-time-code"
            maxLength={9}
            value={code}
            onChange={(event) => setCode(event.currentTarget.value)}
            className={`${field} tracking-[0.2em]`}
          />
        </label>
        {wrong && (
          <p role="alert" className="text-coral text-[16px]">
            {wrong}
          </p>
        )}
        <button
          type="submit"
          disabled={asking}
          className="h-14 rounded-xl bg-sun text-on-sun font-bold text-[18px] disabled:opacity-60"
        >
          Open
        </button>
      </form>
    </main>
  );
}

const Words = ({ children, next }: { children: string; next?: ReactNode }) => (
  <main className="h-full flex flex-col items-center justify-center gap-6 p-8 text-center text-[17px] text-soft">
    <p role="status">{children}</p>
    {next}
  </main>
);

function Open({ link: id, onEnded }: { link: string; onEnded: () => void }) {
  const [state, setState] = useState<State | null>(null);
  const [link, setLink] = useState<PhoneLink | null>(null);
  const [chosen, setChosen] = useState(0);
  useEffect(() => {
    const one = new PhoneLink(id, setState);
    setLink(one);
    return () => one.stop();
  }, [id]);
  useAwake();
  if (!state || !link) return <Words>One moment…</Words>;
  if (state.status === "ended")
    return (
      <Words
        next={
          <button type="button" onClick={onEnded} className="h-12 px-5 rounded-xl bg-raise">
            I have a code
          </button>
        }
      >
        This link has ended. Ask the desk for another; nothing of yours is lost.
      </Words>
    );
  const mixes = state.told?.mixes ?? [];
  const mix = mixes[Math.min(chosen, mixes.length - 1)];
  if (!state.told) return <Words>Looking for the desk…</Words>;
  if (!mix) return <Words>Your mix is not there any more. Ask the desk.</Words>;
  return (
    <div className="h-full flex flex-col max-w-[640px] low:max-w-none mx-auto">
      <header className="shrink-0 flex items-center gap-3 px-3 pt-2 pb-2">
        <img src="/static/mark.svg" alt="" className="w-8 h-8" />
        <div className="min-w-0 flex-1">
          <h1 dir="auto" className="font-title font-bold text-[20px] leading-6 truncate">
            {mix.who || mix.name}
          </h1>
          {mixes.length > 1 ? (
            <select
              aria-label="Which mix"
              value={chosen}
              onChange={(event) => setChosen(Number(event.currentTarget.value))}
              className="bg-card rounded-md h-11 px-2 max-w-full"
            >
              {mixes.map((one, index) => (
                <option key={one.mix} value={index}>
                  {one.name}
                </option>
              ))}
            </select>
          ) : (
            <p dir="auto" className="text-[13px] text-soft truncate">
              {mix.name}
            </p>
          )}
        </div>
        <Standing status={state.status} waiting={state.waiting} kept="mine/day" />
      </header>
      <PhoneView key={mix.mix} mix={mix} state={state} link={link} />
    </div>
  );
}
