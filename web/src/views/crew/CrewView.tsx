import { useCallback, useEffect, useState } from "react";
import {
  getCrew,
  giveShowAway,
  giveTo,
  setRole,
  shareWith,
  takeBack,
  unshare,
} from "../../data/http";
import { notify } from "../../data/show";
import type { Crew, GivenTo, Role, Share } from "../../data/types";
import { useShow } from "../../data/use";
import { levelText } from "../../data/words";
import { ViewHead } from "../../frame/ViewHead";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Deliberate } from "../../ui/Deliberate";
import { Empty } from "../../ui/Panel";
import { MAY, ROLES } from "./roles";

type SharedRole = Exclude<Role, "owner">;
const SHARED = Object.keys(MAY) as SharedRole[];
const OPTIONS = SHARED.map((role) => [role, ROLES[role]] as const);
const FIELD = "h-9 coarse:h-11 rounded-lg bg-card border border-edge px-2.5 text-paper min-w-0";

type Change = (doing: Promise<Crew>, says: string) => Promise<boolean>;

/** Who works on the show: whose it is, who may do what in it, and what volunteers ride. */
export function CrewView() {
  const id = useShow((state) => state.desk?.show.id ?? "");
  const role = useShow((state) => state.role);
  const [crew, setCrew] = useState<Crew | null>(null);
  const [fault, setFault] = useState("");
  useEffect(() => {
    getCrew(id).then(setCrew, (error: Error) => setFault(error.message));
  }, [id, role]);
  const change: Change = useCallback(
    (doing, says) =>
      doing.then(
        (now) => {
          setFault("");
          setCrew(now);
          notify(says);
          return true;
        },
        (error: Error) => {
          setFault(error.message);
          return false;
        },
      ),
    [],
  );
  if (!crew)
    return (
      <>
        <ViewHead title="Crew" />
        {fault && <Fault>{fault}</Fault>}
      </>
    );
  const owns = crew.mine === "owner";
  const gives = owns || crew.mine === "engineer";
  return (
    <>
      <ViewHead title="Crew" />
      <p className="text-soft pb-3">
        {crew.owner ? (
          <>
            This show is{" "}
            <span dir="auto" className="text-paper font-semibold">
              {owns ? "yours" : `${crew.owner}’s`}
            </span>
            .
          </>
        ) : (
          "This show is nobody’s: an administrator can hand it over."
        )}
        {owns && crew.others.length === 0 && (
          <> Everybody with an account has a role here already; administrators make accounts.</>
        )}
      </p>
      {owns && crew.others.length > 0 && <NewShare id={id} crew={crew} onChange={change} />}
      {fault && <Fault>{fault}</Fault>}
      <div
        className="scrolls flex-1 min-h-0 short:min-h-60"
        tabIndex={0}
        role="region"
        aria-label="Who has a role in this show"
      >
        {crew.shares.length === 0 && (
          <Empty title="Nobody else">
            <p>
              {owns
                ? "Nobody but you sees this show, not even its name. Share it above."
                : "Nobody else has a role in this show."}
            </p>
          </Empty>
        )}
        <ul className="flex flex-col gap-1.5">
          {crew.shares.map((share) => (
            <Row key={share.id} id={id} {...{ crew, share, owns, gives }} onChange={change} />
          ))}
        </ul>
      </div>
    </>
  );
}

const Fault = ({ children }: { children: string }) => (
  <p role="alert" className="text-coral pb-2">
    {children}
  </p>
);

interface Part {
  id: string;
  crew: Crew;
  onChange: Change;
}

function NewShare({ id, crew, onChange }: Part) {
  const [name, setName] = useState("");
  const [role, setNew] = useState<SharedRole>("engineer");
  const others = crew.others.map((one) => [one, one] as const);
  return (
    <form
      aria-label="Share the show"
      className="flex items-center gap-2 flex-wrap pb-3 shrink-0"
      onSubmit={(event) => {
        event.preventDefault();
        const says = `${name}: ${ROLES[role].toLowerCase()} of this show`;
        void onChange(shareWith(id, name, role), says).then((done) => done && setName(""));
      }}
    >
      <span className="text-soft">Share with</span>
      <Choice
        boxed
        label="Whom to share it with"
        value={name}
        options={[["", "Somebody…"], ...others]}
        onChange={setName}
        className="!h-9 coarse:!h-11 min-w-40"
      />
      <span className="text-soft">as</span>
      <Choice
        boxed
        label="As what"
        value={role}
        options={OPTIONS}
        onChange={(one) => setNew(one as SharedRole)}
        className="!h-9 coarse:!h-11"
      />
      <Button tone="main" type="submit" disabled={name === ""} className="coarse:h-11">
        Share
      </Button>
      <span className="text-faint text-[13px] basis-full">{MAY[role]}</span>
    </form>
  );
}

interface RowProps extends Part {
  share: Share;
  owns: boolean;
  gives: boolean;
}

function Row({ id, crew, share, owns, gives, onChange }: RowProps) {
  const { name } = share;
  return (
    <li data-share={name} className="rounded-xl border border-line bg-floor px-3 py-2">
      <div className="flex items-center gap-x-3 gap-y-1.5 flex-wrap">
        <span dir="auto" className="font-semibold text-[15px] flex-1 min-w-40 truncate">
          {name}
        </span>
        {owns ? (
          <Choice
            boxed
            label={`Role of ${name}`}
            value={share.role}
            options={OPTIONS}
            onChange={(role) =>
              void onChange(
                setRole(id, share.id, role as SharedRole),
                `${name}: ${ROLES[role as SharedRole].toLowerCase()}`,
              )
            }
            className="!h-9 coarse:!h-11"
          />
        ) : (
          <span className="text-soft">{ROLES[share.role]}</span>
        )}
        {owns && (
          <>
            <Deliberate
              short="Give the show"
              says={`Give the show to ${name}`}
              onDone={() =>
                void onChange(
                  giveShowAway(id, name),
                  `The show is ${name}’s; you are an engineer of it`,
                )
              }
            />
            <Button
              small
              tone="danger"
              aria-label={`Share no more with ${name}`}
              onClick={() => void onChange(unshare(id, share.id), `Shared with ${name} no more`)}
            >
              Share no more
            </Button>
          </>
        )}
      </div>
      <p className="text-faint text-[13px]">{MAY[share.role]}</p>
      {share.role === "volunteer" && (
        <Given id={id} {...{ crew, share, gives }} onChange={onChange} />
      )}
    </li>
  );
}

const KINDS: readonly (readonly [GivenTo["kind"], string])[] = [
  ["fader", "Fader of"],
  ["mute", "Mute of"],
  ["mute_group", "Mute group"],
  ["lift", "Lift"],
];

function Given({ id, crew, share, gives, onChange }: Omit<RowProps, "owns">) {
  const ends = (one: Share["given"][number]) =>
    one.kind === "fader"
      ? `, ${one.lowest_db === null ? "off" : levelText(one.lowest_db)} to ${
          one.highest_db === null ? "its end" : levelText(one.highest_db)
        }`
      : "";
  return (
    <div className="pt-2">
      <ul aria-label={`What ${share.name} rides`} className="flex flex-wrap gap-1.5">
        {share.given.map((one) => (
          <li
            key={one.what}
            data-given={one.what}
            className="flex items-center gap-2 rounded-lg border border-edge bg-card pl-2.5 min-h-9 max-w-full"
          >
            <span className="min-w-0 truncate">
              <span className="text-soft">{one.kind} </span>
              <span dir="auto" className="font-semibold">
                {one.name}
              </span>
              <span className="text-soft">{ends(one)}</span>
            </span>
            {gives && (
              <Button
                small
                tone="quiet"
                aria-label={`Take ${one.kind} ${one.name} back from ${share.name}`}
                onClick={() =>
                  void onChange(takeBack(id, share.id, one.what), `${one.name}: taken back`)
                }
              >
                ✕
              </Button>
            )}
          </li>
        ))}
        {share.given.length === 0 && (
          <li className="text-soft py-1">Nothing yet: {share.name} sees an empty page.</li>
        )}
      </ul>
      {gives && <Give id={id} crew={crew} share={share} onChange={onChange} />}
    </div>
  );
}

function Give({ id, crew, share, onChange }: Part & { share: Share }) {
  const [kind, setKind] = useState<GivenTo["kind"]>("fader");
  const [typed, setTyped] = useState("");
  const [lowest, setLowest] = useState("");
  const [highest, setHighest] = useState("");
  const picked = kind === "lift" ? crew.lifts : kind === "mute_group" ? crew.mute_groups : null;
  const chooses = (one: string) => {
    setKind(one as GivenTo["kind"]);
    setTyped("");
  };
  return (
    <form
      aria-label={`Give ${share.name} something`}
      className="flex items-center gap-2 flex-wrap pt-2"
      onSubmit={(event) => {
        event.preventDefault();
        const given = { kind, typed, lowest, highest };
        void onChange(giveTo(id, share.id, given), `Given to ${share.name}`).then((done) => {
          if (!done) return;
          setTyped("");
          setLowest("");
          setHighest("");
        });
      }}
    >
      <Choice
        boxed
        label={`What kind of thing ${share.name} gets`}
        value={kind}
        options={KINDS}
        onChange={chooses}
        className="!h-9 coarse:!h-11"
      />
      {picked ? (
        <Choice
          boxed
          label={`Which one ${share.name} gets`}
          value={typed}
          options={[
            ["", picked.length > 0 ? "Which…" : "There is none"],
            ...picked.map((one) => [one, one] as const),
          ]}
          onChange={setTyped}
          className="!h-9 coarse:!h-11 min-w-40"
        />
      ) : (
        <input
          aria-label={`Of what ${share.name} gets the ${kind}`}
          placeholder="dca 1, Reader"
          value={typed}
          onChange={(event) => setTyped(event.currentTarget.value)}
          className={`${FIELD} w-56 phone:grow phone:basis-40`}
        />
      )}
      {kind === "fader" && (
        <>
          <input
            aria-label={`Lowest level for ${share.name}, dB`}
            placeholder="from: off"
            value={lowest}
            onChange={(event) => setLowest(event.currentTarget.value)}
            className={`${FIELD} w-24`}
          />
          <input
            aria-label={`Highest level for ${share.name}, dB`}
            placeholder="to: its end"
            value={highest}
            onChange={(event) => setHighest(event.currentTarget.value)}
            className={`${FIELD} w-24`}
          />
        </>
      )}
      <Button type="submit" disabled={typed.trim() === ""} className="coarse:h-11">
        Give
      </Button>
    </form>
  );
}
