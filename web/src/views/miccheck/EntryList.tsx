import { numberOf } from "../../data/address";
import type { CheckEntry } from "../../data/types";
import { useLink } from "../../data/use";
import { Deliberate } from "../../ui/Deliberate";
import { Toggle } from "../../ui/Toggle";

const MARK: Record<CheckEntry["phase"], readonly [string, string]> = {
  waiting: ["·", "text-faint"],
  on: ["▸", "text-sun-text"],
  done: ["✓", "text-sea"],
  skipped: ["↷", "text-coral"],
};

interface Props {
  entries: readonly CheckEntry[];
  /** The entry that this person has. */
  yours: string | null;
}

/** Everybody of tonight, how far each is, and who has whom. Pressed, an entry comes on. */
export function EntryList({ entries, yours }: Props) {
  return (
    <ul
      aria-label="Entries"
      className="flex flex-col gap-1 relative scrolls md:min-h-0"
      tabIndex={0}
    >
      {entries.map((one) => (
        <Row key={one.entry} entry={one} mine={one.entry === yours} />
      ))}
    </ul>
  );
}

function Row({ entry, mine }: { entry: CheckEntry; mine: boolean }) {
  const link = useLink();
  const taken = entry.phase === "on" && !mine;
  const [mark, tone] = MARK[entry.phase];
  const set = (arrived: boolean) =>
    void link.put(`${entry.performer}/arrived_s`, arrived ? Math.round(Date.now() / 1000) : 0);
  return (
    <li
      data-entry={entry.entry}
      data-subject={entry.channel}
      data-phase={entry.phase}
      className={`flex items-center gap-2 rounded-lg pr-1.5 ${mine ? "bg-raise border border-sun" : "bg-floor border border-transparent"}`}
    >
      <button
        type="button"
        aria-current={mine ? "true" : undefined}
        disabled={taken}
        onClick={() => void link.do({ action: "check_go_to", entry: entry.entry })}
        className="flex-1 min-w-0 min-h-[50px] flex items-center gap-2 pl-2.5 text-left cursor-pointer disabled:cursor-default"
      >
        <span className={`w-4 text-lg leading-none ${tone}`}>
          <span aria-hidden>{mark}</span>
          <span className="sr-only">{entry.phase}</span>
        </span>
        <span className="flex-1 min-w-0">
          <span dir="auto" className="block truncate" data-name>
            {entry.name}
          </span>
          <span dir="auto" className="block truncate text-[12.5px] text-faint">
            {numberOf(entry.channel)} {entry.part_name}
            {entry.loose > 0 && (
              <span className="text-sun-text">
                {" "}
                {entry.loose === 1 ? "1 change" : `${entry.loose} changes`} not kept
              </span>
            )}
            {entry.barred && <span className="text-coral"> {entry.barred}</span>}
            {entry.version === 0 && !entry.loose && " nothing kept yet"}
          </span>
        </span>
      </button>
      {taken ? (
        <Deliberate
          says={`Take ${entry.name} over from ${entry.by}`}
          short={`from ${entry.by}`}
          className="max-w-28 truncate"
          onDone={() =>
            void link.do(
              { action: "check_take_over", entry: entry.entry, said: entry.by },
              { quiet: false },
            )
          }
        />
      ) : (
        <Toggle
          label={`${entry.name} is here`}
          pressed={entry.arrived_s > 0}
          onChange={set}
          tone="sea"
        >
          here
        </Toggle>
      )}
    </li>
  );
}
