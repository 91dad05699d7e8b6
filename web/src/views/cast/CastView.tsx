import { type FormEvent, useEffect, useState } from "react";
import type { Ask, Company } from "../../data/types";
import { useLink, useShow } from "../../data/use";
import { ViewHead } from "../../frame/ViewHead";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Deliberate } from "../../ui/Deliberate";
import { Entry } from "../../ui/Entry";
import { Empty } from "../../ui/Panel";
import { sending } from "../../ui/sending";
import { useGoingOn } from "../../ui/useGoingOn";
import { Waiting } from "../../ui/Waiting";
import { CastPreview } from "./CastPreview";
import { PartsTable } from "./PartsTable";

/** Who plays what: parts, casts, and who is on tonight. */
export function CastView() {
  const link = useLink();
  const company = useShow((state) => state.company);
  // a choice that is looked at before it is made: tonight's cast, or a late change
  const [looked, setLooked] = useState<Ask | null>(null);
  useEffect(() => {
    link.watch({ company: true });
    return () => link.watch({ company: false });
  }, [link]);
  if (!company)
    return (
      <>
        <ViewHead title="Cast" />
        <Waiting />
      </>
    );
  return (
    <>
      <ViewHead title="Cast">
        {company.casts.length > 0 && <Tonight company={company} onLook={setLooked} />}
        <span className="flex-1" />
        <NewCast company={company} />
      </ViewHead>
      {looked && <CastPreview ask={looked} onDone={() => setLooked(null)} />}
      {company.parts.length === 0 ? (
        <Empty title="No part yet">
          <p>
            A part is a role, or a chair in the band: its channels, and who plays it. Each
            performer's settings then go on with them, whoever plays tonight.
          </p>
          <NewPart />
        </Empty>
      ) : (
        <>
          <PartsTable company={company} onLook={setLooked} />
          <div className="py-3 shrink-0">
            <NewPart />
          </div>
        </>
      )}
    </>
  );
}

/** Which cast is on tonight; another is looked at before it is taken. */
function Tonight({ company, onLook }: { company: Company; onLook: (ask: Ask) => void }) {
  const late = company.parts.filter((part) => part.late).length;
  return (
    <span className="flex items-center gap-2 min-w-0">
      <Choice
        boxed
        label="Tonight's cast"
        className="h-9 coarse:h-11 max-w-56 font-semibold"
        value={company.tonight ?? ""}
        options={[
          ...(company.tonight ? [] : [["", "choose tonight's cast"] as const]),
          ...company.casts.map((cast) => [cast.cast, `Tonight: ${cast.name}`] as const),
        ]}
        onChange={(cast) => cast && onLook({ action: "choose_cast", cast })}
      />
      {company.tonight && (
        <Button
          title="Everybody's fitting on again, as the cast has them"
          onClick={() =>
            company.tonight && onLook({ action: "choose_cast", cast: company.tonight })
          }
        >
          All fittings on
        </Button>
      )}
      {late > 0 && (
        <span className="text-sun-text whitespace-nowrap">
          {late} late {late === 1 ? "change" : "changes"}
        </span>
      )}
    </span>
  );
}

function NewCast({ company }: { company: Company }) {
  const link = useLink();
  const [name, setName] = useState("");
  const last = company.casts.at(-1);
  const onSubmit = async (event: FormEvent) => {
    event.preventDefault();
    await sending([[name, setName]], () =>
      link.do({ action: "add_cast", name, like: company.tonight }, { quiet: false }),
    );
  };
  return (
    <form className="flex items-center gap-2 flex-wrap" onSubmit={(event) => void onSubmit(event)}>
      <Entry
        label="Name of the new cast"
        placeholder="New cast"
        value={name}
        onChange={setName}
        maxLength={60}
        className="w-36"
      />
      <Button type="submit" disabled={!name.trim()}>
        Add cast
      </Button>
      {last && (
        <Deliberate
          says={`Remove ${last.name}`}
          short="Remove last"
          onDone={() => void link.do({ action: "remove_cast", cast: last.cast }, { quiet: false })}
        />
      )}
    </form>
  );
}

/** A part, the channels it comes in on, and who plays it, in one line. */
function NewPart() {
  const link = useLink();
  const [name, setName] = useState("");
  const field = useGoingOn("new part", name, setName);
  const [channels, setChannels] = useState("");
  const [players, setPlayers] = useState("");
  const onSubmit = async (event: FormEvent) => {
    event.preventDefault();
    field.current?.focus(); // the next begins there
    await sending(
      [
        [name, setName],
        [channels, setChannels],
        [players, setPlayers],
      ],
      () => link.do({ action: "add_part", name, channels, players }, { quiet: false }),
    );
  };
  return (
    <form
      className="flex items-center gap-2 flex-wrap"
      onSubmit={(event) => void onSubmit(event)}
      aria-label="New part"
    >
      <Entry
        field={field}
        label="Name of the new part"
        placeholder="New part"
        value={name}
        onChange={setName}
        maxLength={60}
        className="w-40"
      />
      <Entry
        label="Channels of the new part"
        placeholder="channels: 3"
        value={channels}
        onChange={setChannels}
        className="w-32"
      />
      <Entry
        label="Who plays the new part"
        placeholder="who plays it: Ada, Bo"
        value={players}
        onChange={setPlayers}
        className="w-60"
      />
      <Button type="submit" disabled={!name.trim()}>
        Add part
      </Button>
    </form>
  );
}
