import { useState } from "react";
import { Link as RouteLink } from "wouter";
import { isOf, isPanned, thingOf } from "../../data/address";
import { useSetByHand } from "../../data/hand";
import { colourOf, valueIn } from "../../data/show";
import type { Ask } from "../../data/types";
import {
  socketName,
  sourceInForce,
  stripName,
  useLink,
  useOn,
  useShow,
  useText,
} from "../../data/use";
import { inSentence } from "../../data/words";
import { Button } from "../../ui/Button";
import { PinKey } from "../../ui/PinKey";
import { StripHand } from "../../ui/StripHand";
import { Taking } from "../../ui/Taking";
import { Toggle } from "../../ui/Toggle";
import { RuledBy } from "../../ui/TrueLevel";
import { TypedField } from "../../ui/TypedField";
import { PreampFields } from "../patch/PreampFields";
import { CrossoverPanel } from "./CrossoverPanel";
import { EqPanel } from "./EqPanel";
import { StaticCurve } from "./StaticCurve";
import { STAGES } from "./stages";
import { ValueField } from "./ValueField";

interface Props {
  strip: string;
  stage: string;
  name: string;
  /** All of it at a glance: values beside their curve, and nothing of other strips. */
  compact?: boolean;
}

/** One processor: its switch, its curve and its values; at the same place on every strip. */
export function StagePanel({ strip, stage, name, compact }: Props) {
  const link = useLink();
  const { word, switch: on, aspect, leaves, pin } = STAGES.get(stage)!;
  const [copying, setCopying] = useState<Ask | null>(null);
  const [to, setTo] = useState("");
  const filters = stage === "low_cut" || stage === "eq";
  return (
    <section
      aria-label={`${word} of ${name}`}
      className={`rounded-xl bg-floor border border-line p-3 flex flex-col min-w-0 flex-1 ${compact ? "@container gap-1" : "gap-3"}`}
    >
      <div className="flex items-center gap-3 flex-wrap min-h-9">
        <h2 className="font-title font-semibold text-[17px]">
          {filters ? "Low cut and EQ" : word}
        </h2>
        {on && <Switch address={`${strip}/${on}`} word={word} name={name} />}
        {pin && <PinKey address={`${strip}/pinned_${pin}`} of={`${name}, ${word}`} />}
        <span className="flex-1" />
        {aspect && !compact && (
          <form
            className="flex items-center gap-2"
            onSubmit={(event) => {
              event.preventDefault();
              if (to.trim()) setCopying({ action: "copy_strip", strip, to, aspects: [aspect] });
            }}
          >
            <input
              aria-label={`Copy the ${inSentence(word)} to strips`}
              placeholder="copy to 1-8, drums"
              value={to}
              maxLength={200}
              onChange={(event) => setTo(event.currentTarget.value)}
              className="h-8 coarse:h-11 w-28 px-2 rounded-lg border border-edge bg-card placeholder:text-faint text-[13.5px]"
            />
            <Button small type="submit" disabled={!to.trim()}>
              Copy
            </Button>
            <Button
              small
              type="button"
              onClick={() =>
                void link.do(
                  { action: "neutral", strips: [strip], aspects: [aspect] },
                  { quiet: false },
                )
              }
            >
              Flat
            </Button>
          </form>
        )}
      </div>
      {copying && (
        <Taking
          ask={copying}
          onDone={() => {
            setCopying(null);
            setTo("");
          }}
        />
      )}
      {stage === "crossover" && <CrossoverPanel strip={strip} />}
      {filters && <EqPanel strip={strip} name={name} beside={compact} />}
      {(stage === "gate" || stage === "compressor") && (
        <div className="grid grid-cols-[minmax(200px,340px)_minmax(180px,1fr)] max-md:grid-cols-1 gap-5">
          <StaticCurve strip={strip} stage={stage} name={name} />
          <div className="flex flex-col gap-1">
            {leaves.map((leaf) => (
              <ValueField key={leaf} address={`${strip}/${leaf}`} of={name} />
            ))}
          </div>
        </div>
      )}
      {stage === "gate" && <Keyed strip={strip} name={name} />}
      {stage === "line" && <OscillatorFields strip={strip} />}
      {(stage === "trim" || stage === "delay") && (
        <div className="flex flex-col gap-1 max-w-72">
          {leaves.map((leaf) => (
            <ValueField key={leaf} address={`${strip}/${leaf}`} of={name} />
          ))}
          {stage === "delay" && (
            <>
              <ValueField address="show/temperature_c" of="the air" />
              <p className="text-faint text-[13px] pt-2">
                Typed as 1.4 ms, 2 m, 7 ft or 96 samples.
              </p>
            </>
          )}
        </div>
      )}
      {stage === "sharing" && <Shares strip={strip} name={name} leaves={leaves} />}
      {stage.startsWith("insert_") && <Insert address={`${strip}/${leaves[0]}`} name={name} />}
      {(stage === "line" || stage === "preamp") && <Source strip={strip} />}
      {(stage === "mute" || stage === "fader") && <Level strip={strip} name={name} />}
    </section>
  );
}

interface SharesProps {
  strip: string;
  name: string;
  leaves: readonly string[];
}

/** How it shares gain with others, and where all of them are seen. */
function Shares({ strip, name, leaves }: SharesProps) {
  const group = useShow((state) =>
    stripName(state, String(valueIn(state, `${strip}/sharing/group`) ?? "")),
  );
  return (
    <div className="flex flex-col gap-1 max-w-72">
      <p>
        Shares gain in{" "}
        <RouteLink to="/sharing" className="text-sun-text underline">
          {group}
        </RouteLink>
      </p>
      {leaves.map((leaf) => (
        <ValueField key={leaf} address={`${strip}/${leaf}`} of={name} />
      ))}
    </div>
  );
}

function Switch({ address, word, name }: { address: string; word: string; name: string }) {
  const set = useSetByHand();
  const on = useOn(address);
  return (
    <Toggle
      label={`${on ? "on" : "off"}, ${word} of ${name}`}
      pressed={on}
      onChange={(to) => set(address, to ? "on" : "off")}
    >
      {on ? "on" : "off"}
    </Toggle>
  );
}

/** What opens the gate where another strip does, and a tone that this channel opens. */
function Keyed({ strip, name }: { strip: string; name: string }) {
  const link = useLink();
  const says = useShow((state) => (state.path?.strip === strip ? state.path.keyed : ""));
  const [frequency, setFrequency] = useState("50");
  const [on, setOn] = useState("");
  return (
    <div className="flex flex-col gap-2 border-t border-line pt-2">
      {says && (
        <p data-testid="keyed">
          <span className="text-soft">What opens this?</span> {says}
        </p>
      )}
      <form
        className="flex items-center gap-2 flex-wrap text-[13.5px]"
        onSubmit={(event) => {
          event.preventDefault();
          const channel = Number.parseInt(on, 10) || null;
          void link.do({ action: "reinforce", strip, frequency, on: channel }, { quiet: false });
        }}
      >
        <span className="text-soft">Reinforce {name} by a tone of</span>
        <input
          aria-label={`Frequency of a tone that ${name} opens`}
          value={frequency}
          maxLength={10}
          onChange={(event) => setFrequency(event.currentTarget.value)}
          className="h-8 coarse:h-11 w-16 px-2 rounded-lg border border-edge bg-card text-right"
        />
        <span className="text-soft">Hz on channel</span>
        <input
          aria-label="Channel of the tone"
          placeholder="the highest free"
          inputMode="numeric"
          value={on}
          maxLength={3}
          onChange={(event) => setOn(event.currentTarget.value)}
          className="h-8 coarse:h-11 w-32 px-2 rounded-lg border border-edge bg-card placeholder:text-faint"
        />
        <Button small type="submit" disabled={!frequency.trim()}>
          Reinforce
        </Button>
      </form>
    </div>
  );
}

/** The desk's own tone, on a channel that takes it. */
function OscillatorFields({ strip }: { strip: string }) {
  const takes = useShow((state) => sourceInForce(state, strip).from === "oscillator");
  if (!takes) return null;
  return (
    <div className="flex flex-col gap-1 max-w-72">
      {["kind", "frequency", "level"].map((leaf) => (
        <ValueField key={leaf} address={`oscillator/${leaf}`} of="the oscillator" />
      ))}
    </div>
  );
}

/** What is looped in there; how many insert points the desk still has, and who has the others. */
function Insert({ address, name }: { address: string; name: string }) {
  const link = useLink();
  const device = useText(address);
  const most = useShow((state) => state.desk?.inserts ?? 0);
  // who shares gain may take some too
  const used = useShow(
    (state) => state.inserts.size + state.sharers.size * (state.desk?.sharing_inserts ?? 0),
  );
  const holders = useShow((state) => {
    const sharers = state.desk?.sharing_inserts ? state.sharers : [];
    const strips = [...[...state.inserts].map((one) => thingOf(one).thing), ...sharers];
    return [...new Set(strips.map((strip) => stripName(state, strip)))].join(", ");
  });
  return (
    <div className="flex flex-col gap-1 max-w-96">
      <span className="flex items-center gap-2">
        <span className="text-soft">Looped in</span>
        <TypedField
          boxed
          label={`Device in the insert of ${name}`}
          value={device}
          placeholder="nothing"
          maxLength={30}
          className="w-56 h-8 coarse:h-11"
          onCommit={(typed) => void link.type(address, typed, { quiet: false })}
        />
      </span>
      <p className={used >= most ? "text-coral" : "text-soft"}>
        {most - used} of {most} insert points free
      </p>
      {holders && <p className="text-faint text-[13px]">In use: {holders}</p>}
    </div>
  );
}

function Source({ strip }: { strip: string }) {
  const from = useShow((state) => sourceInForce(state, strip).from);
  const word = useShow((state) => socketName(state, from));
  const preamp = useShow(
    (state) =>
      isOf(from, "input") &&
      state.desk!.boxes.find((box) => box.key === thingOf(from).box)?.preamps === true,
  );
  return (
    <div className="flex items-center gap-2 flex-wrap text-[13.5px]">
      <span>
        {word || "Nothing feeds it."}{" "}
        <RouteLink to="/patch" className="text-sun-text underline">
          Patch
        </RouteLink>
      </span>
      {preamp && from && <PreampFields socket={from} name={word} words />}
    </div>
  );
}

function Level({ strip, name }: { strip: string; name: string }) {
  const colour = useShow((state) => colourOf(state, strip));
  const panned = isPanned(strip);
  return (
    <div className="flex flex-col gap-3">
      <div className="flex items-center gap-2 flex-wrap">
        <StripHand
          strip={strip}
          name={name}
          colour={colour}
          fader={`Fader of ${name}`}
          level={`Level of ${name} in dB`}
        />
      </div>
      {panned && (
        <div className="max-w-72">
          <ValueField address={`${strip}/pan`} of={name} />
        </div>
      )}
      <RuledBy strip={strip} />
    </div>
  );
}
