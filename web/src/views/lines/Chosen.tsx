import { useMemo, useState } from "react";
import type { Ask } from "../../data/types";
import { useLink, useShow } from "../../data/use";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Consequence } from "../../ui/Consequence";

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
  const [leaf, setLeaf] = useState<string>("kind");
  const [text, setText] = useState("");
  const [removing, setRemoving] = useState(false);
  const options = useShow((state) => state.catalogue!.at(`line/1/${leaf}`).options ?? NONE);
  const isSwitch = leaf === "phantom";
  const choices = isSwitch ? ["on", "off"] : options;
  const value = choices.length > 0 && !choices.includes(text) ? choices[0]! : text;
  const all = [...lines];
  const set = () => {
    if (leaf === "kind") {
      void link.do({ action: "set_kind", lines: all, kind: value }, { quiet: false });
      return;
    }
    const moves = all.map((line) => ({ address: `line/${line}/${leaf}`, typed: value }));
    void link.do(
      {
        action: "moves",
        moves,
        says: `${FIELDS.find(([key]) => key === leaf)![1]} of ${all.length} lines`,
      },
      { quiet: false },
    );
  };
  return (
    <>
      <form
        aria-label="Chosen lines"
        className="flex items-center gap-1.5 pb-2 shrink-0"
        onSubmit={(event) => {
          event.preventDefault();
          set();
        }}
      >
        <span className="text-soft whitespace-nowrap">{all.length} chosen: set</span>
        <Choice boxed label="Field to set" value={leaf} options={FIELDS} onChange={setLeaf} />
        {choices.length > 0 ? (
          <Choice
            boxed
            label="Value to set"
            value={value}
            options={choices.map((one) => [one, one.replace("_", " ")] as const)}
            onChange={setText}
            className="flex-1"
          />
        ) : (
          <input
            aria-label="Value to set"
            className="h-7 px-2 rounded-md border border-edge bg-card flex-1 min-w-0"
            value={text}
            onChange={(event) => setText(event.currentTarget.value)}
          />
        )}
        <Button small type="submit">
          Set
        </Button>
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
      </form>
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

const NONE: readonly string[] = [];
