import type { CuesHere, CueWay } from "../../data/types";
import { useLink } from "../../data/use";
import { Toggle } from "../../ui/Toggle";
import { TypedField } from "../../ui/TypedField";

const WORD: Record<CueWay["kind"], readonly [name: string, says: string]> = {
  osc_udp: ["OSC over UDP", "A datagram a message, or a bundle of them."],
  osc_tcp: ["OSC over TCP", "Packets between END bytes (SLIP)."],
  midi_tcp: ["MIDI over TCP", "MIDI bytes as they go over a cable, show control among them."],
};

/** The ports by which cues come, and who may send. */
export function WaysIn({ here }: { here: CuesHere }) {
  const link = useLink();
  return (
    <div className="scrolls flex-1 min-h-0 flex flex-col gap-3 pr-1 max-w-4xl">
      <p className="text-soft max-w-prose">
        Each is off until it is switched on. This machine may always send; name who else may:
        10.0.0.5, or a network such as 10.0.0.0/24.
      </p>
      <ul className="flex flex-col gap-2">
        {here.ways.map((way) => (
          <Way key={way.kind} way={way} />
        ))}
      </ul>
      <label className="flex items-center gap-2 text-soft">
        The same message again within
        <TypedField
          boxed
          align="right"
          label="Within how many milliseconds the same counts once"
          value={String(here.once_ms)}
          onCommit={(text) => link.setCueOnce(text)}
          className="w-16 coarse:h-11"
        />
        ms counts once.
      </label>
    </div>
  );
}

function Way({ way }: { way: CueWay }) {
  const link = useLink();
  const [name, says] = WORD[way.kind];
  const { trouble, listens, ...plain } = way;
  const set = (more: Partial<Omit<CueWay, "port">> & { port?: string }) =>
    link.setCueWay({ ...plain, port: String(way.port), ...more });
  return (
    <li data-way={way.kind} className="row-way rounded-xl bg-card px-3 py-2">
      <span className="flex flex-col" style={{ gridArea: "name" }}>
        <strong>{name}</strong>
        <span className="text-faint text-[13px]">{says}</span>
      </span>
      <span style={{ gridArea: "on" }}>
        <Toggle
          label={`listens: ${name}`}
          pressed={way.on}
          tone="sun"
          onChange={(on) => set({ on })}
        >
          listens
        </Toggle>
      </span>
      <label className="flex flex-col text-faint text-[12px]" style={{ gridArea: "host" }}>
        Listens at
        <TypedField
          boxed
          label={`Address of this machine for ${name}`}
          value={way.host}
          onCommit={(host) => set({ host })}
          className="coarse:h-11 text-[14px]"
        />
      </label>
      <label className="flex flex-col text-faint text-[12px]" style={{ gridArea: "port" }}>
        Port
        <TypedField
          boxed
          align="right"
          label={`Port of ${name}`}
          value={String(way.port)}
          onCommit={(port) => set({ port })}
          className="coarse:h-11 text-[14px]"
        />
      </label>
      <label className="flex flex-col text-faint text-[12px]" style={{ gridArea: "senders" }}>
        Who else may send
        <TypedField
          boxed
          label={`Who may send by ${name}`}
          value={way.senders}
          placeholder="only this machine"
          onCommit={(senders) => set({ senders })}
          maxLength={400}
          className="coarse:h-11 text-[14px]"
        />
      </label>
      <span style={{ gridArea: "answers" }}>
        {way.kind !== "midi_tcp" && (
          <Toggle
            label={`answers senders of ${name}`}
            pressed={way.answers}
            onChange={(answers) => set({ answers })}
          >
            answers
          </Toggle>
        )}
      </span>
      {way.on && !listens && !trouble && (
        <p className="text-soft" style={{ gridArea: "trouble" }}>
          Its port is being opened.
        </p>
      )}
      {trouble && (
        <p role="alert" className="text-coral" style={{ gridArea: "trouble" }}>
          {trouble}
        </p>
      )}
    </li>
  );
}
