import { type FormEvent, type ReactNode, useState } from "react";
import type { Fitting, FittingValue } from "../../data/types";
import { useLink } from "../../data/use";
import { whenText } from "../../data/words";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Deliberate } from "../../ui/Deliberate";
import { Dialog } from "../../ui/Dialog";
import { Entry } from "../../ui/Entry";
import { sending } from "../../ui/sending";
import { Toggle } from "../../ui/Toggle";
import { FittingsCompared } from "./FittingsCompared";

interface Props {
  fitting: Fitting;
  name: string;
  open: boolean;
  onOpenChange: (open: boolean) => void;
}

/** All of a fitting: what it carries, what is loose or otherwise, its versions; captured, given on, compared. */
export function FittingDialog({ fitting, name, open, onOpenChange }: Props) {
  return (
    <Dialog
      wide
      title={fitting.fitting ? fitting.on : `Who is on ${name}`}
      about={fitting.fitting ? `on ${name}. ${fitting.says}` : "Own settings show."}
      open={open}
      onOpenChange={onOpenChange}
    >
      <div className="flex gap-4 flex-wrap items-start pt-3">
        {fitting.fitting && <Values fitting={fitting} />}
        <div className="flex-1 min-w-72 flex flex-col gap-4">
          <Capture fitting={fitting} name={name} />
          {fitting.fitting && <Versions fitting={fitting} />}
          {fitting.fitting && fitting.others.length > 0 && <Others fitting={fitting} />}
        </div>
      </div>
    </Dialog>
  );
}

function Block({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section aria-label={title}>
      <h3 className="text-soft pb-1">{title}</h3>
      {children}
    </section>
  );
}

function Values({ fitting }: { fitting: Fitting }) {
  const link = useLink();
  const carries = new Set(fitting.carries);
  return (
    <div className="flex-1 min-w-72 flex flex-col gap-4">
      <Block title="It carries">
        <div className="flex flex-wrap gap-1.5">
          {fitting.carried.map(([aspect, word]) => (
            <Toggle
              key={aspect}
              label={`${word} of ${fitting.on}`}
              pressed={carries.has(aspect)}
              onChange={(value) => void link.put(`${fitting.fitting}/carries_${aspect}`, value)}
            >
              {word}
            </Toggle>
          ))}
        </div>
      </Block>
      {fitting.loose.length > 0 && (
        <Block title="Changed, not kept">
          <Rows rows={fitting.loose} heads={["kept", "now"]} />
        </Block>
      )}
      {fitting.altered.some((one) => one.why !== "by hand") && (
        <Block title="Otherwise than kept">
          <Rows
            rows={fitting.altered.filter((one) => one.why !== "by hand")}
            heads={["kept", "stands"]}
          />
        </Block>
      )}
      {fitting.beneath.length > 0 && (
        <Block title="Beneath it, the channel's own">
          <Rows rows={fitting.beneath} heads={["own", "stands"]} />
        </Block>
      )}
    </div>
  );
}

function Rows({
  rows,
  heads,
}: {
  rows: readonly FittingValue[];
  heads: readonly [string, string];
}) {
  return (
    <table className="w-full text-[13.5px]">
      <thead className="sr-only">
        <tr>
          <th>value</th>
          <th>{heads[0]}</th>
          <th>{heads[1]}</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.leaf}>
            <td className="pr-2">
              {row.label} {row.why && <span className="text-iris">{row.why}</span>}
            </td>
            <td className="text-faint text-right whitespace-nowrap">{row.kept}</td>
            <td className="text-right whitespace-nowrap pl-2">→ {row.now}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** All that stands, kept under a name: said each time, whoever is on. */
function Capture({ fitting, name }: { fitting: Fitting; name: string }) {
  const link = useLink();
  const [said, setSaid] = useState("");
  const onSubmit = async (event: FormEvent) => {
    event.preventDefault();
    await sending([[said, setSaid]], () =>
      link.do({ action: "capture_fitting", channel: fitting.channel, said }, { quiet: false }),
    );
  };
  return (
    <Block title="Capture all that stands">
      <form className="flex gap-2" onSubmit={(event) => void onSubmit(event)}>
        <Entry
          label={`Capture ${name} for`}
          placeholder="for whom: their name"
          value={said}
          onChange={setSaid}
          maxLength={60}
          className="flex-1"
        />
        <Button type="submit" disabled={!said.trim()}>
          Capture
        </Button>
      </form>
    </Block>
  );
}

function Versions({ fitting }: { fitting: Fitting }) {
  const link = useLink();
  return (
    <Block title="Kept">
      {fitting.versions.length === 0 && <p className="text-faint">Nothing yet.</p>}
      <ul>
        {fitting.versions.map((one, at) => (
          <li key={one.number} className="flex items-center gap-2 py-0.5 min-h-8">
            <span className="w-6 text-right text-faint">{one.number}</span>
            <span dir="auto" className="flex-1 min-w-0 truncate">
              {whenText(new Date(one.at_s * 1000).toISOString())}, {one.how}
              {one.by && <span className="text-soft"> by {one.by}</span>}
            </span>
            {at === 0 ? (
              <span className="text-sea text-[13px]">newest</span>
            ) : (
              <Button
                small
                aria-label={`Bring back version ${one.number}`}
                onClick={() =>
                  void link.do(
                    {
                      action: "bring_back_fitting",
                      fitting: fitting.fitting!,
                      version: one.number,
                    },
                    { quiet: false },
                  )
                }
              >
                Bring back
              </Button>
            )}
          </li>
        ))}
      </ul>
    </Block>
  );
}

/** Another fitting: laid beside this one, or given its values. */
function Others({ fitting }: { fitting: Fitting }) {
  const link = useLink();
  const [other, setOther] = useState("");
  const [compared, setCompared] = useState<string | null>(null);
  const chosen = fitting.others.find((one) => one.what === other);
  const whose = chosen?.performer ?? "";
  return (
    <Block title="Another performer's">
      <div className="flex gap-2 flex-wrap">
        <Choice
          boxed
          label="Another fitting"
          className="h-9 coarse:h-11 flex-1 min-w-40"
          value={other}
          options={[
            ["", "choose whose"],
            ...fitting.others.map((one) => [one.what, one.name] as const),
          ]}
          onChange={(what) => {
            setOther(what);
            setCompared(null);
          }}
        />
        {chosen && (
          <>
            <Button onClick={() => setCompared(chosen.what)}>Compare</Button>
            <Deliberate
              says={`Give ${whose} the settings of ${fitting.performer}`}
              short={`Copy to ${whose}`}
              onDone={() =>
                void link.do(
                  {
                    action: "copy_fitting",
                    fitting: fitting.fitting!,
                    to: chosen.what,
                    said: whose,
                  },
                  { quiet: false },
                )
              }
            />
          </>
        )}
      </div>
      {compared && <FittingsCompared one={fitting.fitting!} other={compared} />}
    </Block>
  );
}
