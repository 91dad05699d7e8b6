import { useState } from "react";
import { inWords, isOf, kindOf, numberOf, stripKind, thingOf } from "../../data/address";
import { type ShowState, store, valueIn } from "../../data/show";
import { socketName, stripName, useLink, useOn, useShow, useText } from "../../data/use";
import { SERVES_WORD } from "../../data/words";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { PinKey } from "../../ui/PinKey";
import { runs } from "../../ui/ranges";
import { StripHand } from "../../ui/StripHand";
import { Toggle } from "../../ui/Toggle";
import { Toolbar } from "../../ui/Toolbar";
import { TypedField } from "../../ui/TypedField";
import { FillDialog } from "./FillDialog";
import { StartDialog } from "./StartDialog";

const NO_COLOURS: readonly string[] = [];
const FORMATS = [
  ["stereo", "stereo"],
  ["mono", "mono"],
] as const;
const SERVES = Object.entries(SERVES_WORD);

/** The outputs of a bus as they can be typed again: "Deck 5-6, Quay 1". */
function outputsText(state: ShowState, bus: string): string {
  const found: string[] = [];
  for (const box of state.desk?.boxes ?? []) {
    const numbers: number[] = [];
    for (let number = 1; number <= box.outputs; number++) {
      const value = valueIn(state, `output/${box.key}/${number}/source`);
      if (typeof value === "string" && thingOf(value).thing === bus) numbers.push(number);
    }
    if (numbers.length) found.push(`${box.short} ${runs(numbers)}`);
  }
  return found.join(", ");
}

/** The head of a bus or return: what it is, where it goes, its own level, what can be done with it. */
export function MixHead({ bus, onGo }: { bus: string; onGo: (strip: string | null) => void }) {
  const link = useLink();
  const kind = kindOf(bus);
  const numbered = !stripKind(bus)?.alone;
  const isReturn = kind === "return";
  const name = useShow((state) => stripName(state, bus));
  const colour = useShow((state) => (numbered ? String(valueIn(state, `${bus}/colour`)) : "sand"));
  const serves = useShow((state) =>
    kind === "mix" ? String(valueIn(state, `${bus}/serves`)) : kind,
  );
  const set = (leaf: string, typed: string) => void link.type(`${bus}/${leaf}`, typed);
  return (
    <div className="rounded-xl bg-floor border border-line px-3 py-2 mb-2 flex flex-col gap-2 shrink-0">
      <div className="flex items-center gap-2 flex-wrap">
        {numbered ? (
          <BusFields bus={bus} kind={kind} name={name} colour={colour} set={set} />
        ) : (
          <strong className="flex-1">{name}</strong>
        )}
        {(kind === "mix" || kind === "matrix") && (
          <PinKey address={`${bus}/pinned_whole`} of={`${name} with its sends`} word="pin" />
        )}
        {isReturn ? (
          <ReturnSource strip={bus} name={name} />
        ) : serves === "effect" ? (
          <Engine bus={bus} name={name} />
        ) : (
          <Outputs bus={bus} name={name} />
        )}
      </div>
      {(isReturn || kind === "group") && <Assignments strip={bus} name={name} />}
      <Master bus={bus} name={name} colour={colour} />
      {numbered && !isReturn && <Actions bus={bus} kind={kind} onGo={onGo} />}
    </div>
  );
}

function Outputs({ bus, name }: { bus: string; name: string }) {
  const link = useLink();
  const outputs = useShow((state) => outputsText(state, bus));
  // a group stands in between: that no socket carries it is as it should be
  const missing = !outputs && !isOf(bus, "group");
  return (
    <>
      <label className="flex items-center gap-1.5 text-faint text-[13px]">
        Out
        <TypedField
          boxed
          label={`Outputs of ${name}`}
          value={outputs}
          placeholder="none"
          className="w-32 h-8"
          missing={missing}
          onCommit={(text) =>
            void link.do({ action: "patch_bus", bus, sockets: text || "none" }, { quiet: false })
          }
        />
      </label>
      {missing && (
        <Button small onClick={() => void link.do({ action: "patch_bus", bus }, { quiet: false })}>
          Next free
        </Button>
      )}
    </>
  );
}

/** Which engine an effect mix feeds; an engine that another mix feeds is not offered. */
function Engine({ bus, name }: { bus: string; name: string }) {
  const link = useLink();
  const engines = useShow((state) => {
    const found: string[] = [];
    for (let n = 1; n <= (state.desk?.effect_engines ?? 0); n++) {
      const source = valueIn(state, `engine/${n}/source`);
      if (source === null || source === bus)
        found.push(`${n}${source === bus ? "*" : ""}\t${stripName(state, `engine/${n}`)}`);
    }
    return found.join("\n");
  });
  const rows = engines
    .split("\n")
    .filter(Boolean)
    .map((row) => row.split("\t") as [string, string]);
  const own = rows.find(([number]) => number.endsWith("*"))?.[0].replace("*", "") ?? "";
  const choose = (number: string) => {
    const moves = own ? [{ address: `engine/${own}/source`, value: null as string | null }] : [];
    if (number) moves.push({ address: `engine/${number}/source`, value: bus });
    void link.do({ action: "moves", moves }, { quiet: false });
  };
  return (
    <label className="flex items-center gap-1.5 text-faint text-[13px]">
      Engine
      <Choice
        boxed
        label={`Engine of ${name}`}
        value={own}
        options={[
          ["", "none"],
          ...rows.map(([number, word]) => [number.replace("*", ""), word] as const),
        ]}
        onChange={choose}
        className="w-32 h-8"
      />
    </label>
  );
}

/** What feeds a return: an engine, or a pair of sockets, as typed. */
function ReturnSource({ strip, name }: { strip: string; name: string }) {
  const link = useLink();
  const source = useShow((state) =>
    socketName(state, valueIn(state, `${strip}/source`) as string | null),
  );
  return (
    <label className="flex items-center gap-1.5 text-faint text-[13px]">
      Fed by
      <TypedField
        boxed
        label={`Source of ${name}`}
        value={source}
        placeholder="engine 1 or A 1"
        className="w-32 h-8"
        missing={!source}
        onCommit={(text) =>
          void link.do(
            { action: "feed_return", number: numberOf(strip), source: text },
            { quiet: false },
          )
        }
      />
    </label>
  );
}

/** Where a return or group goes, behind its fader: a group into other groups too. */
function Assignments({ strip, name }: { strip: string; name: string }) {
  const groups = useShow((state) => state.groups);
  const buses = [
    "house",
    "mono",
    ...groups.map((n) => `group/${n}`).filter((group) => group !== strip),
  ];
  return (
    <div className="flex items-center gap-1.5 flex-wrap">
      <span className="w-14 text-soft">Goes to</span>
      {buses.map((bus) => (
        <Assignment key={bus} strip={strip} bus={bus} name={name} />
      ))}
    </div>
  );
}

function Assignment({ strip, bus, name }: { strip: string; bus: string; name: string }) {
  const link = useLink();
  const address = `${strip}/${bus}/on`;
  const on = useOn(address);
  const word = useShow((state) => stripName(state, bus));
  return (
    <Toggle
      label={`${name} feeds ${word}`}
      pressed={on}
      onChange={(value) => void link.put(address, value)}
    >
      {word} {on ? "on" : "off"}
    </Toggle>
  );
}

/** Its own level: a return's or group's fader, or the master of what is listened to. */
function Master({ bus, name, colour }: { bus: string; name: string; colour: string }) {
  const word = /^(return|group)/.test(bus) ? "Fader" : "Master";
  return (
    <div className="flex items-center gap-2 least:flex-wrap">
      <span className="w-14 text-soft">{word}</span>
      <StripHand
        strip={bus}
        name={name}
        colour={colour}
        fader={`${word} of ${name}`}
        level={`${word} of ${name} in dB`}
      />
    </div>
  );
}

const LISTS = { mix: "mixes", group: "groups", matrix: "matrices" } as const;

/** What can be done with a bus as a whole. */
function Actions({
  bus,
  kind,
  onGo,
}: {
  bus: string;
  kind: string;
  onGo: (strip: string | null) => void;
}) {
  const link = useLink();
  const [filling, setFilling] = useState(false);
  const [starting, setStarting] = useState(false);
  const list = LISTS[kind as keyof typeof LISTS];
  const order = useShow((state) => state[list].join(" "))
    .split(" ")
    .map((n) => `${kind}/${n}`);
  const place = order.indexOf(bus);
  const move = async (step: -1 | 1) => {
    // behind the next one is ahead of the one after it
    const before = step < 0 ? order[place - 1]! : (order[place + 2] ?? null);
    if (await link.do({ action: "move_bus", bus, before }, { quiet: false }))
      onGo(order[place + step]!);
  };
  const duplicate = async () => {
    const before = new Set(store.getState()[list]);
    if (!(await link.do({ action: "duplicate_bus", bus }, { quiet: false }))) return;
    const made = store.getState()[list].find((number) => !before.has(number));
    if (made) onGo(`${kind}/${made}`);
  };
  return (
    <div className="flex items-center gap-1.5 flex-wrap">
      <Toolbar
        label="What can be done with it"
        className="gap-1.5"
        tools={{
          duplicate: (
            <Button small onClick={() => void duplicate()}>
              Duplicate
            </Button>
          ),
          start: kind === "mix" && (
            <Button small onClick={() => setStarting(true)}>
              Start…
            </Button>
          ),
          fill: kind === "mix" && (
            <Button small onClick={() => setFilling(true)}>
              Fill…
            </Button>
          ),
        }}
      />
      <Button
        small
        disabled={place <= 0}
        aria-label={`Move this ${kind} up`}
        title="Move up"
        onClick={() => void move(-1)}
      >
        ↑
      </Button>
      <Button
        small
        disabled={place < 0 || place === order.length - 1}
        aria-label={`Move this ${kind} down`}
        title="Move down"
        onClick={() => void move(1)}
      >
        ↓
      </Button>
      <span className="flex-1" />
      <Button
        small
        tone="danger"
        onClick={() => {
          onGo(null);
          void link.do({ action: "remove_bus", bus }, { quiet: false });
        }}
      >
        Remove
      </Button>
      <FillDialog mix={bus} open={filling} onOpenChange={setFilling} />
      <StartDialog mixes={inWords(bus)} open={starting} onOpenChange={setStarting} />
    </div>
  );
}

interface FieldsProps {
  bus: string;
  kind: string;
  name: string;
  colour: string;
  set: (leaf: string, typed: string) => void;
}

/** What only numbered strips have; the house and mono are what they are. */
function BusFields({ bus, kind, name, colour, set }: FieldsProps) {
  const colours = useShow((state) => state.catalogue!.at(`${bus}/colour`).options ?? NO_COLOURS);
  return (
    <>
      <TypedField
        boxed
        label={`Name of the ${kind}`}
        value={name}
        maxLength={60}
        onCommit={(text) => set("name", text)}
        className="flex-1 min-w-40 font-semibold h-8"
      />
      <ColourField
        label={`Colour of the ${kind}`}
        value={colour}
        options={colours}
        onChange={(value) => set("colour", value)}
      />
      {kind !== "return" && <Format bus={bus} set={set} />}
      {kind === "mix" && <Serves bus={bus} set={set} />}
    </>
  );
}

function Format({ bus, set }: Pick<FieldsProps, "bus" | "set">) {
  const format = useText(`${bus}/format`);
  return (
    <Choice
      boxed
      label="Stereo or mono"
      value={format}
      options={FORMATS}
      onChange={(value) => set("format", value)}
    />
  );
}

function Serves({ bus, set }: Pick<FieldsProps, "bus" | "set">) {
  const serves = useText(`${bus}/serves`);
  return (
    <Choice
      boxed
      label="Used for"
      value={serves}
      options={SERVES}
      onChange={(value) => set("serves", value)}
    />
  );
}

function ColourField({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: string;
  options: readonly string[];
  onChange: (value: string) => void;
}) {
  return (
    <span className="flex items-center gap-1.5">
      <span
        className="w-3.5 h-3.5 rounded-full"
        style={{ background: `var(--strip-${value})` }}
        aria-hidden
      />
      <Choice
        boxed
        label={label}
        value={value}
        options={options.map((one) => [one, one] as const)}
        onChange={onChange}
      />
    </span>
  );
}
