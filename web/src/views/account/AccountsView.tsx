import { useCallback, useEffect, useState } from "react";
import {
  changeAccount,
  getAccounts,
  givePassword,
  handOverAccount,
  makeAccount,
  signOutAccount,
  unlockAccount,
} from "../../data/http";
import { notify } from "../../data/show";
import type { Account } from "../../data/types";
import { whenText } from "../../data/words";
import { ViewHead } from "../../frame/ViewHead";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Deliberate } from "../../ui/Deliberate";
import { FIELD } from "./AccountView";

type Change = (doing: Promise<Account[]>, says: string) => Promise<boolean>;

/** Who can sign in: made, closed and let in again by administrators. */
export function AccountsView() {
  const [rows, setRows] = useState<readonly Account[] | null>(null);
  const [fault, setFault] = useState("");
  const change: Change = useCallback(
    (doing, says) =>
      doing.then(
        (now) => {
          setFault("");
          setRows(now);
          if (says) notify(says);
          return true;
        },
        (error: Error) => {
          setFault(error.message);
          return false;
        },
      ),
    [],
  );
  useEffect(() => void change(getAccounts(), ""), [change]);
  const open = rows?.filter((row) => row.is_open) ?? [];
  return (
    <>
      <ViewHead title="Accounts">
        <span className="text-faint">
          {rows && (open.length === 1 ? "1 account is open" : `${open.length} accounts are open`)}
        </span>
      </ViewHead>
      {rows && <NewAccount onChange={change} />}
      {fault && (
        <p role="alert" className="text-coral pb-2">
          {fault}
        </p>
      )}
      <div className="scrolls flex-1 min-h-0" tabIndex={0} role="region" aria-label="All accounts">
        <ul className="flex flex-col gap-1.5">
          {rows?.map((row) => (
            <Row key={row.id} row={row} rows={rows} onChange={change} />
          ))}
        </ul>
      </div>
    </>
  );
}

function NewAccount({ onChange }: { onChange: Change }) {
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const [administrator, setAdministrator] = useState(false);
  return (
    <form
      aria-label="New account"
      className="flex items-center gap-2 flex-wrap pb-3 shrink-0"
      onSubmit={(event) => {
        event.preventDefault();
        const says = `${name} can sign in`;
        void onChange(makeAccount(name, password, administrator), says).then((done) => {
          if (!done) return;
          setName("");
          setPassword("");
          setAdministrator(false);
        });
      }}
    >
      <input
        aria-label="Name of the new account"
        placeholder="Name"
        autoComplete="off"
        maxLength={60}
        value={name}
        onChange={(event) => setName(event.currentTarget.value)}
        className={`${FIELD} w-44`}
      />
      <input
        aria-label="Password of the new account"
        placeholder="Password, ten letters at least"
        type="password"
        autoComplete="new-password"
        value={password}
        onChange={(event) => setPassword(event.currentTarget.value)}
        className={`${FIELD} w-60`}
      />
      <label className="flex items-center gap-2 text-soft min-h-9 coarse:min-h-11">
        <input
          type="checkbox"
          checked={administrator}
          onChange={(event) => setAdministrator(event.currentTarget.checked)}
        />
        administrator
      </label>
      <Button
        tone="main"
        type="submit"
        disabled={name.trim() === "" || password === ""}
        className="coarse:h-11"
      >
        Make account
      </Button>
    </form>
  );
}

interface RowProps {
  row: Account;
  rows: readonly Account[];
  onChange: Change;
}

function Row({ row, rows, onChange }: RowProps) {
  const [more, setMore] = useState(false);
  const { id, name } = row;
  const told = [
    row.seen_at ? `seen ${whenText(row.seen_at)}` : "never signed in",
    row.owns === 1 ? "1 show" : `${row.owns} shows`,
    row.visits > 0 && (row.visits === 1 ? "signed in" : `signed in at ${row.visits} places`),
    row.tried > 0 &&
      (row.tried === 1 ? "1 wrong password lately" : `${row.tried} wrong passwords lately`),
  ];
  return (
    <li
      data-account={name}
      className={`rounded-xl border px-3 py-2 ${row.is_open ? "border-line bg-floor" : "border-line opacity-80"}`}
    >
      <div className="flex items-center gap-x-3 gap-y-1.5 flex-wrap">
        <span className="flex-1 min-w-52">
          <span className="flex items-center gap-2 min-w-0">
            <span dir="auto" className="font-semibold text-[15px] truncate">
              {name}
            </span>
            {row.administrator && <Mark>administrator</Mark>}
            {!row.is_open && <Mark>closed</Mark>}
            {row.locked && <Mark coral>held back: too many wrong passwords</Mark>}
          </span>
          <span className="block text-[13px] text-faint">{told.filter(Boolean).join(" · ")}</span>
        </span>
        {row.locked && (
          <Button
            small
            aria-label={`Let in again, ${name}`}
            onClick={() => void onChange(unlockAccount(id), `${name} can try again`)}
          >
            Let in again
          </Button>
        )}
        {row.visits > 0 && (
          <Button
            small
            aria-label={`Sign out, ${name}`}
            onClick={() => void onChange(signOutAccount(id), `${name} is signed out`)}
          >
            Sign out
          </Button>
        )}
        {row.is_open ? (
          <Deliberate
            short="Close"
            says={`Close the account of ${name}`}
            onDone={() => void onChange(changeAccount(id, { is_open: false }), `${name}: closed`)}
          />
        ) : (
          <Button
            small
            aria-label={`Open again, ${name}`}
            onClick={() => void onChange(changeAccount(id, { is_open: true }), `${name}: open`)}
          >
            Open again
          </Button>
        )}
        <Button
          small
          aria-expanded={more}
          aria-label={`More of ${name}`}
          onClick={() => setMore(!more)}
        >
          More
        </Button>
      </div>
      {more && <More row={row} rows={rows} onChange={onChange} />}
    </li>
  );
}

const Mark = ({ children, coral }: { children: string; coral?: boolean }) => (
  <span
    className={`shrink-0 rounded-md border px-1.5 text-[12px] ${coral ? "border-coral text-coral" : "border-edge text-soft"}`}
  >
    {children}
  </span>
);

function More({ row, rows, onChange }: RowProps) {
  const [password, setPassword] = useState("");
  const [to, setTo] = useState("");
  const { id, name } = row;
  const others = rows.filter((one) => one.is_open && one.id !== id);
  return (
    <div className="flex items-center gap-x-6 gap-y-2 flex-wrap pt-2">
      <form
        aria-label={`Another password for ${name}`}
        className="flex items-center gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void onChange(givePassword(id, password), `${name} has another password`).then(
            (done) => done && setPassword(""),
          );
        }}
      >
        <input
          aria-label={`Another password of ${name}`}
          placeholder="Another password"
          type="password"
          autoComplete="new-password"
          value={password}
          onChange={(event) => setPassword(event.currentTarget.value)}
          className={`${FIELD} w-48`}
        />
        <Button type="submit" small className="!h-10" disabled={password === ""}>
          Set
        </Button>
      </form>
      <Button
        small
        onClick={() =>
          void onChange(
            changeAccount(id, { administrator: !row.administrator }),
            row.administrator ? `${name}: no administrator any more` : `${name}: administrator`,
          )
        }
      >
        {row.administrator ? "No administrator any more" : "Make administrator"}
      </Button>
      {row.owns > 0 && others.length > 0 && (
        <form
          aria-label={`Hand over the shows of ${name}`}
          className="flex items-center gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            void onChange(handOverAccount(id, to), `Shows of ${name}: now ${to}’s`);
          }}
        >
          <span className="text-soft">
            Hand {row.owns === 1 ? "the show" : `${row.owns} shows`} to
          </span>
          <Choice
            boxed
            label={`Who gets the shows of ${name}`}
            value={to}
            options={[["", "Somebody…"], ...others.map((one) => [one.name, one.name] as const)]}
            onChange={setTo}
            className="!h-10 min-w-32"
          />
          <Button type="submit" small className="!h-10" disabled={to === ""}>
            Hand over
          </Button>
        </form>
      )}
    </div>
  );
}
