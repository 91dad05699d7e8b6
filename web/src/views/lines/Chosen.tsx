import { useMemo, useState } from "react";
import type { Ask } from "../../data/types";
import { useLink } from "../../data/use";
import { Button } from "../../ui/Button";
import { Consequence } from "../../ui/Consequence";
import { SetMany } from "../../ui/SetMany";

/** Fields that make sense for many lines at once, by the catalogue's leaf and its words. */
const FIELDS = [
  ["kind", "Kind"],
  ["family", "Family"],
  ["colour", "Colour"],
  ["performer", "Performer"],
  ["where", "Where"],
  ["stand", "Stand"],
  ["microphone", "Mic or DI"],
  ["level_dbu", "Level in dBu"],
  ["phantom", "Needs 48 V"],
  ["notes", "Notes"],
] as const;

interface Props {
  lines: readonly number[];
  onMove: (step: -1 | 1) => void;
  onDone: () => void;
}

/** What can be done with the chosen lines, all in one edit. */
export function Chosen({ lines, onMove, onDone }: Props) {
  const link = useLink();
  const [removing, setRemoving] = useState(false);
  const all = [...lines];
  return (
    <>
      <SetMany
        label="Chosen lines"
        word="lines"
        of={all.map((line) => `line/${line}`)}
        fields={FIELDS}
        ask={(leaf, kind) => (leaf === "kind" ? { action: "set_kind", lines: all, kind } : null)}
      >
        <span className="w-2" />
        <Button small onClick={() => onMove(-1)} title="Alt+↑">
          Up
        </Button>
        <Button small onClick={() => onMove(1)} title="Alt+↓">
          Down
        </Button>
        <Button
          small
          onClick={() => void link.do({ action: "duplicate_lines", lines: all }, { quiet: false })}
        >
          Duplicate
        </Button>
        <Button
          small
          onClick={() => void link.do({ action: "suggest_gains", lines: all }, { quiet: false })}
          title="Preamp gains that bring these lines to the target level"
        >
          Set gains
        </Button>
        <Button small tone="danger" aria-expanded={removing} onClick={() => setRemoving(!removing)}>
          Remove…
        </Button>
      </SetMany>
      {removing && <Removing lines={all} onLeave={() => setRemoving(false)} onDone={onDone} />}
    </>
  );
}

/** Before lines leave the list: what becomes of their channels and sends, and which way to take. */
function Removing({
  lines,
  onLeave,
  onDone,
}: {
  lines: number[];
  onLeave: () => void;
  onDone: () => void;
}) {
  const link = useLink();
  const [free, setFree] = useState(false);
  const key = lines.join(",");
  const ask = useMemo<Ask>(
    () => ({ action: "remove_lines", lines: key.split(",").map(Number), free }),
    [key, free],
  );
  const remove = async () => {
    if (await link.do(ask, { quiet: false })) onDone();
  };
  return (
    <div className="shrink-0" data-testid="removing">
      <Consequence ask={ask} />
      <div className="flex items-center gap-3 pb-2">
        <label className="flex items-center gap-2 cursor-pointer">
          <input
            type="checkbox"
            className="accent-(--sun) w-4 h-4"
            checked={free}
            onChange={(event) => setFree(event.currentTarget.checked)}
          />
          Free their channels too
        </label>
        <span className="flex-1" />
        <Button small tone="danger" onClick={() => void remove()}>
          Remove {lines.length === 1 ? "the line" : `${lines.length} lines`}
        </Button>
        <Button small onClick={onLeave}>
          Leave {lines.length === 1 ? "it" : "them"}
        </Button>
      </div>
    </div>
  );
}
