import { Link as RouteLink } from "wouter";
import type { CuesHere, CueTold } from "../../data/types";
import { useLink } from "../../data/use";
import { whenText } from "../../data/words";
import { Button } from "../../ui/Button";
import { InRow, useRows } from "../../ui/reach";

const MARK: Record<CueTold["what"], readonly [sign: string, word: string, tone: string]> = {
  done: ["✓", "done", "text-sea"],
  rehearsed: ["◌", "would", "text-sun-text"],
  refused: ["✕", "refused", "text-coral"],
  unknown: ["?", "no cue", "text-soft"],
  dropped: ["–", "dropped", "text-faint"],
};
const WAY: Record<string, string> = { osc_udp: "OSC", osc_tcp: "OSC (TCP)", midi_tcp: "MIDI" };

const hasKey = (told: CueTold): boolean =>
  told.what === "unknown" || (told.revision !== null && !told.undone);

interface Props {
  here: CuesHere;
  /** A message that came is to become a cue. */
  onTake: (came: string) => void;
}

/** What came, the newest first, and what became of each. */
export function ToldList({ here, onTake }: Props) {
  const rows = useRows(here.told.filter(hasKey).map((told) => String(told.id)));
  const listening = here.ways.some((way) => way.on);
  return (
    <section
      aria-label="What came"
      className="cues-told min-w-0 flex flex-col gap-[3px]"
      tabIndex={0}
    >
      <h2 className="text-soft text-[12px] px-2 pb-1">What came</h2>
      {here.told.length === 0 && (
        <p className="text-soft px-2">
          {listening ? (
            "Nothing yet. Send a message from the machine: it appears here, and becomes a cue by a press."
          ) : (
            <>
              No way in is on.{" "}
              <RouteLink
                to="/cues/ways"
                className="text-sun-text underline coarse:min-h-11 inline-flex items-center"
              >
                Switch one on
              </RouteLink>
            </>
          )}
        </p>
      )}
      <ul {...rows.hand} className="flex flex-col gap-[3px]">
        {here.told.map((told) => (
          <InRow key={told.id} of={String(told.id)} rows={rows}>
            <ToldRow told={told} onTake={onTake} />
          </InRow>
        ))}
      </ul>
    </section>
  );
}

function ToldRow({ told, onTake }: { told: CueTold; onTake: Props["onTake"] }) {
  const link = useLink();
  const [sign, word, tone] = MARK[told.what];
  const from = `${WAY[told.way] ?? told.way} from ${told.sender}`;
  return (
    <li
      data-row={hasKey(told) ? told.id : undefined}
      data-told={told.what}
      className={`row-told rounded-md px-2 py-1 bg-card ${told.what === "dropped" ? "text-faint" : ""}`}
    >
      <span className={`${tone} font-semibold whitespace-nowrap`} style={{ gridArea: "what" }}>
        <span aria-hidden>{sign} </span>
        {word}
        {told.times > 1 && <span className="tabular-nums"> ×{told.times}</span>}
      </span>
      <span
        className="truncate tabular-nums"
        style={{ gridArea: "came" }}
        title={told.came}
        dir="auto"
      >
        {told.came || from}
      </span>
      <span className="min-w-0 break-words" style={{ gridArea: "says" }} dir="auto">
        {told.says}
      </span>
      <span
        className="text-faint text-[12px] tabular-nums min-w-0 [overflow-wrap:anywhere]"
        style={{ gridArea: "about" }}
      >
        {whenText(told.at, true)}
        {told.came && `, ${from}, ${told.ms < 10 ? told.ms.toFixed(1) : Math.round(told.ms)} ms`}
        {told.revision !== null && `, change ${told.revision}`}
      </span>
      <span className="flex justify-end" style={{ gridArea: "keys" }}>
        {told.revision !== null &&
          (told.undone ? (
            <span className="text-faint text-[13px]">undone</span>
          ) : (
            <Button small aria-label={`Undo ${told.came}`} onClick={() => link.undoCue(told.id)}>
              Undo
            </Button>
          ))}
        {told.what === "unknown" && (
          <Button
            small
            aria-label={`Take ${told.came} as a cue`}
            title="Make it a cue"
            onClick={() => onTake(told.came)}
          >
            Take
          </Button>
        )}
      </span>
    </li>
  );
}
