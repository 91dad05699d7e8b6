import { useCallback } from "react";
import { valueIn } from "../../data/show";
import { socketName, useShow, useStripName } from "../../data/use";
import { ColourBar } from "../../ui/Panel";
import { RowList } from "../../ui/RowList";
import { useTabIndex } from "../../ui/reach";

/** The whole list with what was found; the line in hand stays in sight. */
export function CheckList({ line, onChoose }: { line: number; onChoose: (line: number) => void }) {
  const lines = useShow((state) => state.lines);
  const row = useCallback(
    (one: number) => <Row line={one} here={one === line} onChoose={onChoose} />,
    [line, onChoose],
  );
  return (
    <RowList
      label="Lines to check"
      keys={lines}
      height={48}
      shown={line}
      row={row}
      className="phone:min-h-96"
    />
  );
}

const MARK: Record<string, readonly [string, string]> = {
  unchecked: ["·", "text-faint"],
  good: ["✓", "text-sea"],
  bad: ["✗", "text-coral"],
};

function Row({
  line,
  here,
  onChoose,
}: {
  line: number;
  here: boolean;
  onChoose: (line: number) => void;
}) {
  const name = useStripName(`line/${line}`);
  const colour = useShow((state) => String(valueIn(state, `line/${line}/colour`)));
  const verdict = useShow((state) => String(valueIn(state, `line/${line}/check`)));
  const note = useShow((state) => String(valueIn(state, `line/${line}/check_note`)));
  const socket = useShow((state) =>
    socketName(state, valueIn(state, `line/${line}/socket`) as string | null),
  );
  const [mark, tone] = MARK[verdict] ?? MARK.unchecked!;
  return (
    <button
      type="button"
      tabIndex={useTabIndex()}
      aria-current={here ? "true" : undefined}
      data-check={line}
      data-verdict={verdict}
      onClick={() => onChoose(line)}
      className={`w-full h-[46px] flex items-stretch gap-2 rounded-lg text-left cursor-pointer ${here ? "bg-raise" : "bg-floor hover:bg-card"}`}
    >
      <ColourBar colour={colour} />
      <span className={`self-center w-4 text-lg leading-none ${tone}`}>
        <span aria-hidden>{mark}</span>
        <span className="sr-only">{verdict}</span>
      </span>
      <span className="self-center flex-1 min-w-0">
        <span dir="auto" className="block truncate">
          {name}
        </span>
        {note && <span className="block truncate text-[12.5px] text-coral">{note}</span>}
      </span>
      <span className="self-center pr-2 text-[12.5px] text-faint">{socket || "no socket"}</span>
    </button>
  );
}
