import { useEffect, useState } from "react";
import { changePassword, endOtherVisits, endVisit, getVisits } from "../../data/http";
import { notify } from "../../data/show";
import type { Visit } from "../../data/types";
import { useShow } from "../../data/use";
import { whenText } from "../../data/words";
import { ViewHead } from "../../frame/ViewHead";
import { Button } from "../../ui/Button";

export const FIELD =
  "h-10 coarse:h-11 rounded-lg bg-card border border-edge px-2.5 text-paper min-w-0";

/** What somebody signed in by, in a word: the browser says no more that people would know it by. */
const agentText = (agent: string): string =>
  agent === "" ? "unknown" : /Mobi/.test(agent) ? "phone or tablet" : "computer";

/** One's own account: the password, and where one is signed in. */
export function AccountView() {
  const name = useShow((state) => state.me?.name ?? "");
  const [visits, setVisits] = useState<readonly Visit[] | null>(null);
  const [fault, setFault] = useState("");
  useEffect(() => {
    getVisits().then(setVisits, (error: Error) => setFault(error.message));
  }, []);
  const act = (doing: Promise<readonly Visit[]>, says: string) =>
    doing.then(
      (now) => {
        setFault("");
        setVisits(now);
        notify(says);
        return true;
      },
      (error: Error) => {
        setFault(error.message);
        return false;
      },
    );
  const others = visits?.filter((one) => !one.here).length ?? 0;
  return (
    <>
      <ViewHead title="Your account">
        <span dir="auto" className="text-soft">
          {name}
        </span>
      </ViewHead>
      {fault && (
        <p role="alert" className="text-coral pb-2">
          {fault}
        </p>
      )}
      <div className="scrolls flex-1 min-h-0" tabIndex={0} role="region" aria-label="Your account">
        <Password
          onChange={(old, another) =>
            act(changePassword(old, another), "Password changed; other places are signed out")
          }
        />
        <div className="flex items-center gap-3 pt-6 pb-2 flex-wrap">
          <h2 className="font-semibold text-[15px]">Where you are signed in</h2>
          {others > 0 && (
            <Button small onClick={() => void act(endOtherVisits(), "Signed out everywhere else")}>
              Sign out everywhere else
            </Button>
          )}
        </div>
        <ul className="flex flex-col gap-1.5 max-w-[720px]">
          {visits?.map((visit) => (
            <li
              key={visit.id}
              data-visit={visit.here ? "here" : "there"}
              className="flex items-center gap-3 min-h-12 rounded-xl border border-line bg-floor px-3 py-1.5"
            >
              <span className="flex-1 min-w-0">
                <span className="block truncate">A {agentText(visit.agent)}</span>
                <span className="block text-[13px] text-faint truncate">
                  from {visit.address || "this machine"} · since {whenText(visit.began_at)} · seen{" "}
                  {whenText(visit.seen_at)}
                </span>
              </span>
              {visit.here ? (
                <span className="text-sun-text font-semibold">here</span>
              ) : (
                <Button
                  small
                  aria-label={`Sign out ${agentText(visit.agent)} from ${visit.address}`}
                  onClick={() => void act(endVisit(visit.id), "Signed out there")}
                >
                  Sign out
                </Button>
              )}
            </li>
          ))}
        </ul>
      </div>
    </>
  );
}

function Password({ onChange }: { onChange: (old: string, another: string) => Promise<boolean> }) {
  const [old, setOld] = useState("");
  const [another, setAnother] = useState("");
  return (
    <form
      aria-label="Change your password"
      className="flex items-end gap-3 flex-wrap"
      onSubmit={(event) => {
        event.preventDefault();
        void onChange(old, another).then((done) => {
          if (!done) return;
          setOld("");
          setAnother("");
        });
      }}
    >
      <label className="flex flex-col gap-1 text-soft">
        Your password
        <input
          type="password"
          autoComplete="current-password"
          value={old}
          onChange={(event) => setOld(event.currentTarget.value)}
          className={`${FIELD} w-56`}
        />
      </label>
      <label className="flex flex-col gap-1 text-soft">
        Another, of ten letters at least
        <input
          type="password"
          autoComplete="new-password"
          value={another}
          onChange={(event) => setAnother(event.currentTarget.value)}
          className={`${FIELD} w-56`}
        />
      </label>
      <Button type="submit" disabled={old === "" || another === ""} className="!h-10 coarse:!h-11">
        Change password
      </Button>
    </form>
  );
}
