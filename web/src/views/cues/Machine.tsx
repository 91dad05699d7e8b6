import { useState } from "react";
import type { CuesHere, CueWay } from "../../data/types";
import { useLink, useShow } from "../../data/use";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Entry } from "../../ui/Entry";
import { TypedField } from "../../ui/TypedField";

const WAYS = [
  ["osc_udp", "OSC over UDP"],
  ["osc_tcp", "OSC over TCP"],
  ["midi_tcp", "MIDI over TCP"],
] as const;
type Err = "lose" | "double" | "swap";

/** A stand-in for the machine that fires cues: it plays a sheet, or one message by hand. */
export function Machine({ here, sheet }: { here: CuesHere; sheet: string }) {
  const link = useLink();
  const stands = useShow((state) => state.machine);
  const [text, setText] = useState("");
  const [one, setOne] = useState("");
  const [way, setWay] = useState<CueWay["kind"]>("osc_udp");
  const [errs, setErrs] = useState({ lose: 0, double: 0, swap: 0 });
  const off = !here.ways.find((known) => known.kind === way)?.on;
  const playing = stands?.at_s != null;
  const err = (which: Err, typed: string) => {
    const percent = Number(typed.replace("%", ""));
    if (!Number.isInteger(percent) || percent < 0 || percent > 100) return;
    const now = { ...errs, [which]: percent };
    setErrs(now);
    link.cueMachine({ do: "err", way, sheet: "", ...now });
  };
  const ask = (what: "play" | "fire" | "stop", content = "") =>
    link.cueMachine({ do: what, way, sheet: content, ...errs });
  return (
    <div className="scrolls flex-1 min-h-0 flex flex-col gap-3 pr-1 max-w-4xl">
      <p className="text-soft max-w-prose">
        A stand-in runs beside Ombrel, so that a show can be tried without the real machine. It
        sends to the way in that is chosen here.
      </p>
      <div className="flex items-center gap-2 flex-wrap">
        <Choice
          boxed
          label="By which way it sends"
          value={way}
          options={WAYS}
          onChange={(to) => setWay(to as CueWay["kind"])}
          className="h-9 coarse:h-11"
        />
        {(["lose", "double", "swap"] as const).map((which) => (
          <label key={which} className="flex items-center gap-1 text-soft">
            {which}s
            <TypedField
              boxed
              align="right"
              label={`How many of a hundred it ${which}s`}
              value={`${errs[which]} %`}
              onCommit={(typed) => err(which, typed)}
              className="w-16 coarse:h-11"
            />
          </label>
        ))}
        {off && <span className="text-coral">That way in is off: switch it on in Ways in.</span>}
      </div>
      <form
        className="flex items-center gap-2 flex-wrap"
        onSubmit={(event) => {
          event.preventDefault();
          if (one.trim()) ask("fire", one);
        }}
      >
        <Entry
          label="One message"
          placeholder="/cue 12"
          value={one}
          onChange={setOne}
          maxLength={200}
          className="w-72 phone:w-full"
        />
        <Button type="submit" className="coarse:h-11" disabled={!one.trim() || off}>
          Send it
        </Button>
      </form>
      <div className="flex items-center gap-2 flex-wrap">
        <Button className="coarse:h-11" onClick={() => setText(sheet)}>
          Make the sheet from the scenes
        </Button>
        <Button
          tone="main"
          className="coarse:h-11"
          disabled={!text.trim() || off}
          onClick={() => ask("play", text)}
        >
          Play the sheet
        </Button>
        <Button className="coarse:h-11" disabled={!playing} onClick={() => ask("stop")}>
          Stop
        </Button>
        <span role="status" aria-label="Cue machine" className="text-soft tabular-nums">
          {stands === null
            ? "No cue machine answers."
            : `${playing ? `Playing, ${stands.at_s!.toFixed(1)} s` : "At rest"}: ${stands.sent} sent${stands.last ? `, last ${stands.last}` : ""}`}
        </span>
      </div>
      <textarea
        aria-label="Cue sheet: seconds, message, what it is for"
        value={text}
        onChange={(event) => setText(event.currentTarget.value)}
        placeholder={"0.0,/cue 1\n2.0,/cue 2"}
        maxLength={200000}
        spellCheck={false}
        className="min-h-64 flex-1 rounded-lg border border-edge bg-card text-paper p-2 font-mono text-[13px] placeholder:text-faint"
      />
    </div>
  );
}
