import { useState } from "react";
import { isOf, numberOf } from "../../data/address";
import { useSetByHand } from "../../data/hand";
import type { CheckEntry } from "../../data/types";
import { useLevel, useShow, useText } from "../../data/use";
import { levelText } from "../../data/words";
import { Button } from "../../ui/Button";
import { LevelMeter } from "../../ui/LevelMeter";
import { Tabs } from "../../ui/Tabs";
import { Toggle } from "../../ui/Toggle";
import { TypedField } from "../../ui/TypedField";
import { StagePanel } from "../strip/StagePanel";

interface Props {
  own: CheckEntry | null;
  next: CheckEntry | null;
  target: number;
  fed: boolean;
  onFeed: () => void;
  onStep: (step: "next" | "skip" | "back" | "drop" | "finish") => void;
}

const STAGE_TABS = [
  { key: "eq", word: "Low cut, EQ", note: "" },
  { key: "gate", word: "Gate", note: "" },
  { key: "compressor", word: "Compressor", note: "" },
] as const;

/** Who is at the microphone now, large: what arrives, and what is adjusted, always at the same places. */
export function CheckedCard({ own, next, target, fed, onFeed, onStep }: Props) {
  const [stage, setStage] = useState<string>("eq");
  return (
    <section
      aria-label={own ? `Checking ${own.name}` : "Mic check"}
      className="rounded-2xl bg-floor border border-line p-4 phone:p-3 flex flex-col gap-3 md:min-h-0"
    >
      <div className="relative flex flex-col gap-3 scrolls md:min-h-0 flex-1">
        {own ? (
          <>
            <div className="flex gap-x-6 gap-y-2 flex-wrap items-center justify-between">
              <Head own={own} />
              <Gain channel={own.channel} name={own.name} />
            </div>
            <Arriving own={own} target={target} fed={fed} onFeed={onFeed} />
            <Tabs label="Stage" tabs={STAGE_TABS} chosen={stage} onChoose={setStage} />
            <div className="shrink-0">
              <StagePanel compact strip={own.channel} stage={stage} name={own.name} />
            </div>
          </>
        ) : (
          <div className="flex-1 min-w-0 flex flex-col items-center justify-center text-center gap-2 py-8 [overflow-wrap:anywhere]">
            <h2 className="font-title text-2xl font-bold">
              {next ? `${next.name} is first` : "Everybody is checked"}
            </h2>
            <p className="text-soft max-w-96">
              {next
                ? `Next puts their settings on ${numberOf(next.channel)} ${next.channel_name}. What you then move is theirs, and is kept when the next one comes.`
                : "Press an entry in the list to go back to it."}
            </p>
          </div>
        )}
      </div>
      <div className="flex gap-2 shrink-0 flex-wrap phone:sticky phone:bottom-0 phone:bg-floor phone:py-2">
        {own && (
          <>
            <Key word="Back" shortcut="B" onPress={() => onStep("back")} />
            <Key word="Skip" shortcut="S" onPress={() => onStep("skip")} />
            <Key
              word={own.loose ? `Drop ${own.loose}` : "Drop"}
              shortcut="D"
              onPress={() => onStep("drop")}
              disabled={own.loose === 0}
            />
          </>
        )}
        {own && !next && <Key word="Finish" onPress={() => onStep("finish")} />}
        <Button
          tone="main"
          className="!h-14 flex-[3_1_180px] justify-center text-lg min-w-0"
          aria-keyshortcuts="N"
          disabled={!own && !next}
          onClick={() => onStep("next")}
        >
          <span className="min-w-0 flex flex-col items-center leading-tight">
            <span dir="auto" className="truncate max-w-full">
              {next ? `${own ? "Next" : "Begin"}: ${next.name}` : "Keep, the last"}
            </span>
            {own && (
              <span dir="auto" className="truncate max-w-full text-[13px] font-normal">
                {own.name} is kept
              </span>
            )}
          </span>
        </Button>
      </div>
    </section>
  );
}

interface KeyProps {
  word: string;
  shortcut?: string;
  disabled?: boolean;
  onPress: () => void;
}

function Key({ word, shortcut, disabled, onPress }: KeyProps) {
  return (
    <Button
      className="!h-14 flex-[1_0_auto] justify-center text-[17px]"
      aria-keyshortcuts={shortcut}
      disabled={disabled}
      onClick={onPress}
    >
      {word}
    </Button>
  );
}

function Head({ own }: { own: CheckEntry }) {
  return (
    <div>
      <h2 dir="auto" className="font-title text-[28px] leading-tight font-bold break-words">
        {own.name}
      </h2>
      <p className="text-lg">
        {own.part_name}
        <span className="text-soft">
          {" "}
          on {numberOf(own.channel)} {own.channel_name !== own.name && own.channel_name}
        </span>
      </p>
      <p
        className={own.loose ? "text-sun-text" : own.version ? "text-soft" : "text-sun-text"}
        role="status"
      >
        {own.loose
          ? `${own.loose} ${own.loose === 1 ? "value" : "values"} moved, kept with Next`
          : own.version
            ? `Settings as kept, version ${own.version}`
            : "Nothing kept yet: the channel's own settings show"}
      </p>
    </div>
  );
}

function Arriving({
  own,
  target,
  fed,
  onFeed,
}: {
  own: CheckEntry;
  target: number;
  fed: boolean;
  onFeed: () => void;
}) {
  const number = numberOf(own.channel);
  const dbfs = useShow((state) => state.levels[number] ?? null);
  return (
    <div className="flex flex-col gap-1">
      <LevelMeter
        label={`Level of ${own.name}`}
        dbfs={dbfs}
        wanted={target}
        wantedWord={`target ${levelText(target, 0)} dBFS`}
      />
      <div className="flex items-center gap-3 flex-wrap">
        <p className="flex-1 min-w-40" data-testid="arrival">
          {dbfs === null ? (
            <span className="text-faint">Nothing arrives. Let them speak.</span>
          ) : (
            <span className="text-soft">The target is {levelText(target, 0)} dBFS.</span>
          )}
        </p>
        {own.line !== null && (
          <Toggle label="Tone from the stand-in stage" pressed={fed} onChange={onFeed} tone="sun">
            {fed ? "Stop the tone" : "Tone"}
          </Toggle>
        )}
      </div>
    </div>
  );
}

/** The preamp under the thumbs: by 1 dB, or typed. */
function Gain({ channel, name }: { channel: string; name: string }) {
  const set = useSetByHand();
  const socket = useText(`${channel}/source`);
  const has = isOf(socket, "input");
  const gain = useLevel(has ? `${socket}/gain` : `${channel}/trim`) ?? 0;
  if (!has) return null;
  const step = (by: string) => set(`${socket}/gain`, by);
  return (
    <div className="flex items-center gap-2" role="group" aria-label={`Preamp of ${name}`}>
      <span className="text-soft w-12">Gain</span>
      <Button
        className="!h-11 w-14 justify-center text-lg"
        aria-label="Gain down"
        onClick={() => step("down 1")}
      >
        −
      </Button>
      <TypedField
        boxed
        align="right"
        label={`Gain of ${name}`}
        value={levelText(gain, 0)}
        className="w-20 !h-11 text-lg"
        onCommit={(typed) => set(`${socket}/gain`, typed)}
      />
      <Button
        className="!h-11 w-14 justify-center text-lg"
        aria-label="Gain up"
        onClick={() => step("up 1")}
      >
        +
      </Button>
      <span className="text-faint">dB</span>
      <Pad socket={socket} name={name} />
    </div>
  );
}

function Pad({ socket, name }: { socket: string; name: string }) {
  const set = useSetByHand();
  const on = useText(`${socket}/pad`) === "true";
  return (
    <Toggle
      label={`Pad of ${name}`}
      pressed={on}
      onChange={(to) => set(`${socket}/pad`, to ? "on" : "off")}
      tone="sun"
    >
      Pad
    </Toggle>
  );
}
