import { useMemo } from "react";
import { Gesture } from "../../data/link";
import { type ShowState, valueOf } from "../../data/show";
import { stripName, useLink, useLevel, useOn, useShow, useText } from "../../data/use";
import { SERVES_WORD, levelText } from "../../data/words";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Fader } from "../../ui/Fader";
import { Toggle } from "../../ui/Toggle";
import { TypedField } from "../../ui/TypedField";
import { runs } from "../../ui/ranges";
import type { Mark } from "../../ui/travel";

const NO_COLOURS: readonly string[] = [];
const FORMATS = [["stereo", "stereo"], ["mono", "mono"]] as const;
const SERVES = Object.entries(SERVES_WORD);

/** The outputs of a bus as they can be typed again: "Local 5-6, A 1". */
function outputsText(state: ShowState, bus: string): string {
  const found: string[] = [];
  for (const box of state.desk?.boxes ?? []) {
    const numbers: number[] = [];
    for (let number = 1; number <= box.outputs; number++) {
      const value = state.values[`output/${box.key}/${number}/source`];
      if (typeof value === "string" && (value === bus || value.startsWith(`${bus}/`))) numbers.push(number);
    }
    if (numbers.length) found.push(`${box.short} ${runs(numbers)}`);
  }
  return found.join(", ");
}

/** The head of a mix: name, colour, format, outputs, master. */
export function MixHead({ bus, onGone }: { bus: string; onGone: () => void }) {
  const link = useLink();
  const isMix = bus.startsWith("mix/");
  const name = useShow((state) => stripName(state, bus));
  const outputs = useShow((state) => outputsText(state, bus));
  const level = useLevel(`${bus}/fader`);
  const muted = useOn(`${bus}/mute`);
  const marks = useShow((state) => state.desk!.fader_marks as Mark[]);
  const colour = useShow((state) => (isMix ? String(valueOf(state, `${bus}/colour`)) : "sand"));
  const set = (leaf: string, typed: string) => void link.do({ action: "moves", moves: [{ address: `${bus}/${leaf}`, typed }] });
  const gesture = useMemo(() => ({ now: null as Gesture | null }), []);
  return (
    <div className="rounded-xl bg-floor border border-line px-3 py-2 mb-2 flex flex-col gap-2 shrink-0">
      <div className="flex items-center gap-2">
        {isMix ? (
          <MixFields bus={bus} name={name} colour={colour} set={set} />
        ) : (
          <strong className="flex-1">{name}</strong>
        )}
        <label className="flex items-center gap-1.5 text-faint text-[13px]">
          Out
          <TypedField
            boxed
            label={`Outputs of ${name}`}
            value={outputs}
            placeholder="none"
            className="w-32 h-8"
            missing={!outputs}
            onCommit={(text) => void link.do({ action: "patch_bus", bus, sockets: text || "none" }, { quiet: false })}
          />
        </label>
        {!outputs && (
          <Button small onClick={() => void link.do({ action: "patch_bus", bus }, { quiet: false })}>
            Next free
          </Button>
        )}
        {isMix && (
          <Button
            small
            tone="danger"
            onClick={() => {
              onGone();
              void link.do({ action: "remove_mix", mix: Number(bus.split("/")[1]) }, { quiet: false });
            }}
          >
            Give up
          </Button>
        )}
      </div>
      <div className="flex items-center gap-2">
        <span className="w-14 text-soft">Master</span>
        <Toggle label={`Mute ${name}`} tone="coral" pressed={muted} onChange={(on) => set("mute", on ? "on" : "off")}>
          mute
        </Toggle>
        <Fader
          label={`Master of ${name}`}
          address={`${bus}/fader`}
          levelDb={level}
          muted={muted}
          marks={marks}
          colour={colour}
          onMove={(travel) => {
            gesture.now ??= new Gesture(link);
            gesture.now.move({ action: "moves", moves: [{ address: `${bus}/fader`, travel }] });
          }}
          onRelease={() => (gesture.now = null)}
          onStep={(text) => set("fader", text)}
        />
        <TypedField label={`Master of ${name} in dB`} value={levelText(level)} align="right" className="w-16" onCommit={(text) => set("fader", text)} />
      </div>
    </div>
  );
}

interface FieldsProps {
  bus: string;
  name: string;
  colour: string;
  set: (leaf: string, typed: string) => void;
}

/** What only a mix has; the house and mono are what they are. */
function MixFields({ bus, name, colour, set }: FieldsProps) {
  const colours = useShow((state) => state.catalogue!.at(`${bus}/colour`).options ?? NO_COLOURS);
  const format = useText(`${bus}/format`);
  const serves = useText(`${bus}/serves`);
  return (
    <>
      <TypedField boxed label="Name of the mix" value={name} maxLength={60} onCommit={(text) => set("name", text)} className="flex-1 font-semibold h-8" />
      <ColourField label="Colour of the mix" value={colour} options={colours} onChange={(value) => set("colour", value)} />
      <Choice boxed label="Stereo or mono" value={format} options={FORMATS} onChange={(value) => set("format", value)} />
      <Choice boxed label="Serves" value={serves} options={SERVES} onChange={(value) => set("serves", value)} />
    </>
  );
}

function ColourField({ label, value, options, onChange }: { label: string; value: string; options: readonly string[]; onChange: (value: string) => void }) {
  return (
    <span className="flex items-center gap-1.5">
      <span className="w-3.5 h-3.5 rounded-full" style={{ background: `var(--strip-${value})` }} aria-hidden />
      <Choice boxed label={label} value={value} options={options.map((one) => [one, one] as const)} onChange={onChange} />
    </span>
  );
}
