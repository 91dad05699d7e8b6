import { type KeyboardEvent, useCallback, useMemo, useState } from "react";
import { thingOf } from "../../data/address";
import type { Ask } from "../../data/types";
import { stripName, useLink, useShow } from "../../data/use";
import { Free } from "../../frame/Free";
import { ViewHead } from "../../frame/ViewHead";
import { Button } from "../../ui/Button";
import { useListHeight } from "../../ui/media";

import { RowList } from "../../ui/RowList";
import { Tabs } from "../../ui/Tabs";
import { Taking, takeIt } from "../../ui/Taking";
import { OutputRow } from "./OutputRow";

/** Every output socket, what it carries, from which tap, and what is connected to it. */
export function OutputsView() {
  const link = useLink();
  const boxes = useShow((state) => state.desk!.boxes).filter((box) => box.outputs > 0);
  const [key, setKey] = useState(boxes[0]?.key);
  const box = boxes.find((one) => one.key === key) ?? boxes[0];
  const [taking, setTaking] = useState<Ask | null>(null);
  const row = useCallback((socket: string) => <OutputRow socket={socket} onTake={setTaking} />, []);
  const taken = useShow((state) => state.outputs);
  const used = useMemo(() => {
    const counts = new Map<string, number>();
    for (const socket of taken) {
      const { box } = thingOf(socket);
      counts.set(box, (counts.get(box) ?? 0) + 1);
    }
    return counts;
  }, [taken]);
  const sockets = useMemo(
    () =>
      Array.from({ length: box?.outputs ?? 0 }, (_, index) => `output/${box!.key}/${index + 1}`),
    [box],
  );
  const height = useListHeight();
  const loose = useShow((state) =>
    state.findings
      .filter((finding) => finding.rule === "mix_that_goes_nowhere")
      .map((finding) => stripName(state, finding.about))
      .join(", "),
  );
  if (!box) return <p className="py-5 text-soft">This desk has no outputs.</p>;

  // The hand stays on the list where it chose: Enter takes, Escape leaves. (A key that took the
  // focus by itself would be pressed by what is still being typed into the list.)
  const onKey = (event: KeyboardEvent) => {
    if (!taking || event.target instanceof HTMLButtonElement) return;
    if (event.key === "Enter") void takeIt(link, taking, () => setTaking(null));
    if (event.key === "Escape") setTaking(null);
  };
  return (
    <div className="flex flex-col flex-1 min-h-0" onKeyDown={onKey}>
      <ViewHead title="Outputs">
        <Tabs
          label="Boxes"
          tabs={boxes.map((one) => ({
            key: one.key,
            word: one.short,
            title: one.name,
            note: `${used.get(one.key) ?? 0}/${one.outputs}`,
          }))}
          chosen={box.key}
          onChoose={setKey}
        />
        <Free of={["outputs"]} />
      </ViewHead>
      {loose && (
        <div className="flex items-center gap-3 mb-2 rounded-xl border border-coral/60 bg-floor px-3 py-2 shrink-0">
          <span
            dir="auto"
            className="flex-1 min-w-0 max-h-16 scrolls break-words"
            tabIndex={0}
            role="region"
            aria-label="Mixes without an output"
          >
            <strong className="text-coral">No output:</strong> {loose}
          </span>
          <Button small onClick={() => void link.do({ action: "patch_buses" }, { quiet: false })}>
            Patch to the next free
          </Button>
        </div>
      )}
      {(box.output_block ?? 1) > 1 && (
        <p className="text-soft text-[13px] pb-2 shrink-0">
          {box.name} is patched only in blocks of {box.output_block}: choosing for one output
          patches its whole block.
        </p>
      )}
      {taking && <Taking ask={taking} onDone={() => setTaking(null)} />}
      <div className="row-output row-heads text-[12px] text-faint pb-1 px-2 shrink-0">
        <span>Socket</span>
        <span className="pl-1">Carries</span>
        <span className="pl-1">Tap</span>
        <span className="text-right pr-1.5">Trim</span>
        <span className="text-right pr-1.5">ms</span>
        <span className="text-center">Pol.</span>
        <span className="pl-1">Device</span>
        <span className="pl-1.5">Connected</span>
      </div>
      <RowList label={`Outputs of ${box.name}`} keys={sockets} height={height} row={row} />
    </div>
  );
}
