import { useMemo, useState } from "react";
import { Link as RouteLink } from "wouter";
import { inWords } from "../../data/address";
import { valueIn } from "../../data/show";
import { stripName, useLink, useShow, useText } from "../../data/use";
import { optionText } from "../../data/words";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { useTabIndex } from "../../ui/reach";
import { sending } from "../../ui/sending";
import { TypedField } from "../../ui/TypedField";
import { ValueField } from "../strip/ValueField";

const REVERB = ["decay", "pre_delay", "size", "damping", "wet"];
const DELAY = ["time", "feedback", "low_cut", "high_cut", "wet"];

/** One shared effect: what it does, who goes there, where its return goes. */
export function EffectCard({ engine }: { engine: string }) {
  const link = useLink();
  const name = useShow((state) => stripName(state, engine));
  const mix = useText(`${engine}/source`);
  const kind = useText(`${engine}/kind`);
  const colour = useText(`${mix}/colour`);
  const back = useShow((state) =>
    state.returns.find((n) => valueIn(state, `return/${n}/source`) === engine),
  );
  const sent = useShow((state) => {
    const names: string[] = [];
    for (const strip of [
      ...state.channels.map((n) => `channel/${n}`),
      ...state.groups.map((n) => `group/${n}`),
    ]) {
      const send = `${strip}/send/${mix}`;
      if (valueIn(state, `${send}/level`) !== null && valueIn(state, `${send}/on`) === true)
        names.push(stripName(state, strip));
    }
    return names.join("\n");
  });
  const heard = useShow((state) => {
    if (back === undefined) return "";
    const sends = state.mixes.filter((n) => {
      const send = `return/${back}/send/mix/${n}`;
      return valueIn(state, `${send}/level`) !== null && valueIn(state, `${send}/on`) === true;
    });
    return sends.map((n) => stripName(state, `mix/${n}`)).join(", ");
  });
  const senders = useMemo(() => sent.split("\n").filter(Boolean), [sent]);
  const tabIndex = useTabIndex();
  const leaves = kind === "delay" ? DELAY : REVERB;
  return (
    <li
      data-row={engine}
      data-effect={engine}
      data-subject={`${back === undefined ? "" : `return/${back}`} ${mix}`}
      className="relative rounded-xl border border-line bg-floor p-3 flex flex-col gap-2"
      style={{ borderLeft: `5px solid var(--strip-${colour || "sand"})` }}
    >
      <div className="flex items-center gap-3 flex-wrap">
        <h2 className="sr-only">{name}</h2>
        <TypedField
          boxed
          label={`Name of ${name}`}
          value={name}
          maxLength={60}
          className="font-title font-semibold text-[17px] h-9 w-56"
          onCommit={(typed) => void link.do({ action: "rename_effect", engine, name: typed })}
        />
        <span className="text-faint text-[13px]">
          {inWords(engine)}, fed by {inWords(mix)}
        </span>
        <Kind engine={engine} name={name} kind={kind} />
        {kind === "delay" && <Note engine={engine} name={name} />}
        <span className="flex-1" />
        {back === undefined ? (
          <span className="text-coral">comes back on no return</span>
        ) : (
          <RouteLink
            to={`/strip/return/${back}`}
            tabIndex={tabIndex}
            className="text-sun-text underline coarse:h-11 inline-flex items-center"
          >
            Its return
          </RouteLink>
        )}
      </div>
      <div className="flex flex-wrap gap-x-3 gap-y-1">
        {leaves.map((leaf) => (
          <ValueField key={leaf} address={`${engine}/${leaf}`} of={name} />
        ))}
      </div>
      <SendForm
        label={`Send strips to ${name}`}
        placeholder="1-8, Kick, drums"
        word="Send"
        then={
          senders.length === 0
            ? "Nobody is sent there yet."
            : `${senders.length} sent: ${senders.slice(0, 6).join(", ")}${senders.length > 6 ? ` and ${senders.length - 6} more` : ""}`
        }
        onSend={(strips, level) =>
          link.do({ action: "send_strips", strips, mixes: inWords(mix), level })
        }
      />
      {back !== undefined && (
        <SendForm
          label={`Return of ${name} into mixes`}
          placeholder="mix 1-6"
          word="Return to"
          then={heard ? `Heard in ${heard}` : "In no mix: performers hear it only by the room."}
          onSend={(mixes, level) =>
            link.do({ action: "send_strips", strips: `return ${back}`, mixes, level })
          }
        />
      )}
    </li>
  );
}

interface OfEngine {
  engine: string;
  name: string;
}

function Kind({ engine, name, kind }: OfEngine & { kind: string }) {
  const link = useLink();
  const kinds = useShow((state) => state.catalogue!.at(`${engine}/kind`).options ?? []);
  return (
    <Choice
      boxed
      label={`What ${name} is`}
      value={kind}
      options={kinds.map((one) => [one, one] as const)}
      className="coarse:h-11"
      onChange={(typed) => void link.type(`${engine}/kind`, typed)}
    />
  );
}

/** The note of the tempo that a delay is held to. */
function Note({ engine, name }: OfEngine) {
  const link = useLink();
  const note = useText(`${engine}/note`);
  const notes = useShow((state) => state.catalogue!.at(`${engine}/note`).options ?? []);
  return (
    <Choice
      boxed
      label={`Note of ${name}`}
      value={note}
      options={notes.map((one) => [one, optionText(one)] as const)}
      className="coarse:h-11"
      onChange={(wanted) => void link.do({ action: "set_note", engine, note: wanted })}
    />
  );
}

interface SendFormProps {
  label: string;
  placeholder: string;
  word: string;
  /** Who is there already. */
  then: string;
  onSend: (which: string, level: string) => Promise<boolean>;
}

/** Several sends at once: which, and how loud. */
function SendForm({ label, placeholder, word, then, onSend }: SendFormProps) {
  const tabIndex = useTabIndex();
  const [which, setWhich] = useState("");
  const [level, setLevel] = useState(useShow((state) => String(state.desk!.new_mix.level_db)));
  const field =
    "h-8 coarse:h-11 min-w-0 px-2 rounded-lg border border-edge bg-card placeholder:text-faint text-[13.5px]";
  return (
    <form
      className="flex items-center gap-2 flex-wrap text-[13.5px]"
      onSubmit={(event) => {
        event.preventDefault();
        if (which.trim()) void sending([[which, setWhich]], () => onSend(which, level));
      }}
    >
      <span className="text-soft w-16">{word}</span>
      <input
        aria-label={label}
        tabIndex={tabIndex}
        placeholder={placeholder}
        value={which}
        maxLength={400}
        onChange={(event) => setWhich(event.currentTarget.value)}
        className={`${field} w-32`}
      />
      <span className="text-soft">at</span>
      <input
        aria-label={`Level: ${label}`}
        tabIndex={tabIndex}
        value={level}
        maxLength={10}
        onChange={(event) => setLevel(event.currentTarget.value)}
        className={`${field} w-16 text-right`}
      />
      <Button small type="submit" disabled={!which.trim()}>
        Set
      </Button>
      <span className="text-faint flex-1 min-w-40">{then}</span>
    </form>
  );
}
