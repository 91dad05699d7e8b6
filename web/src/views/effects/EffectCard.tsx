import { useMemo, useState } from "react";
import { Link as RouteLink } from "wouter";
import { inWords } from "../../data/address";
import { useSetByHand } from "../../data/hand";
import { valueIn } from "../../data/show";
import { stripName, useLevel, useLink, useShow, useText } from "../../data/use";
import { levelText, optionText } from "../../data/words";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { InRow, useRows, useTabIndex } from "../../ui/reach";
import { sending } from "../../ui/sending";
import { TypedField } from "../../ui/TypedField";
import { pageOf } from "../mixes/addresses";
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
    const strips = [
      ...state.channels.map((n) => `channel/${n}`),
      ...state.returns.map((n) => `return/${n}`),
      ...state.groups.map((n) => `group/${n}`),
    ];
    return strips
      .filter((strip) => {
        const send = `${strip}/send/${mix}`;
        return valueIn(state, `${send}/level`) !== null && valueIn(state, `${send}/on`) === true;
      })
      .join("\n");
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
        then={senders.length === 0 ? "Nobody is sent there yet." : `${senders.length} sent:`}
        onSend={(strips, level) =>
          link.do({ action: "send_strips", strips, mixes: inWords(mix), level })
        }
      />
      {senders.length > 0 && <Senders senders={senders} mix={mix} name={name} />}
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

const MOST_SHOWN = 24;

/** Who is sent to an effect, each with its level there; more than a card holds are in its mix. */
function Senders({
  senders,
  mix,
  name,
}: {
  senders: readonly string[];
  mix: string;
  name: string;
}) {
  const tabIndex = useTabIndex();
  const shown = senders.slice(0, MOST_SHOWN);
  const rows = useRows(shown, { across: true });
  return (
    <ul
      {...rows.hand}
      aria-label={`Sent to ${name}`}
      className="grid grid-cols-[repeat(auto-fill,minmax(190px,1fr))] gap-x-5 gap-y-1"
    >
      {shown.map((strip) => (
        <InRow key={strip} of={strip} rows={rows}>
          <Sender strip={strip} mix={mix} effect={name} />
        </InRow>
      ))}
      {senders.length > MOST_SHOWN && (
        <li>
          <RouteLink
            to={`/mixes/${pageOf(mix)}`}
            tabIndex={tabIndex}
            className="text-sun-text underline"
          >
            and {senders.length - MOST_SHOWN} more
          </RouteLink>
        </li>
      )}
    </ul>
  );
}

function Sender({ strip, mix, effect }: { strip: string; mix: string; effect: string }) {
  const set = useSetByHand();
  const name = useShow((state) => stripName(state, strip));
  const address = `${strip}/send/${mix}/level`;
  const level = useLevel(address);
  return (
    <li data-row={strip} className="flex items-center gap-1 min-w-0">
      <bdi className="text-soft truncate flex-1" title={name}>
        {name}
      </bdi>
      <TypedField
        boxed
        label={`Level of ${name} to ${effect} in dB`}
        value={levelText(level)}
        align="right"
        className="w-16 h-8"
        onCommit={(typed) => set(address, typed)}
      />
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
