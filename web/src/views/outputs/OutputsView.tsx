import { type KeyboardEvent, useCallback, useMemo, useRef, useState } from "react";
import { thingOf } from "../../data/address";
import type { Ask } from "../../data/types";
import { stripName, useLink, useShow } from "../../data/use";
import { Free } from "../../frame/Free";
import { ViewHead } from "../../frame/ViewHead";
import { Button } from "../../ui/Button";
import { ChooseAll, ChosenIn, useChosen } from "../../ui/chosen";
import { useListHeight } from "../../ui/media";
import { RowList } from "../../ui/RowList";
import { SetMany } from "../../ui/SetMany";
import { sending } from "../../ui/sending";
import { Tabs } from "../../ui/Tabs";
import { Taking, takeIt } from "../../ui/Taking";
import { useTaking } from "../../ui/useTaking";
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
  const { choosing, picked, all } = useChosen(sockets);
  const free = useTaking();
  if (!box) return <p className="py-5 text-soft">This desk has no outputs.</p>;

  // The hand stays on the list where it chose: Enter takes, Escape leaves. (A key that took the
  // focus by itself would be pressed by what is still being typed into the list.)
  const onKey = (event: KeyboardEvent) => {
    if (!taking || event.target instanceof HTMLButtonElement) return;
    if (event.key === "Enter") void takeIt(link, taking, () => setTaking(null));
    if (event.key === "Escape") setTaking(null);
  };
  return (
    <ChosenIn value={choosing}>
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
        <TypedOutputs key={box.key} box={box.short} />
        {picked.length > 0 && (
          <SetMany label="Chosen outputs" word="outputs" of={picked} fields={FIELDS}>
            <Button
              small
              onClick={() =>
                free.ask({
                  action: "moves",
                  moves: picked.map((socket) => ({ address: `${socket}/source`, value: null })),
                  says: `${picked.length} outputs freed`,
                })
              }
            >
              Free them
            </Button>
          </SetMany>
        )}
        {free.bar}
        {taking && <Taking ask={taking} onDone={() => setTaking(null)} />}
        <div className="row-output row-heads text-[12px] text-faint pb-1 px-2 shrink-0">
          <label className="flex items-center gap-2 cursor-pointer">
            <ChooseAll
              label={`Choose all outputs of ${box.name}`}
              shown={sockets}
              picked={picked}
              onAll={(on) => all(sockets, on)}
            />
            Socket
          </label>
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
    </ChosenIn>
  );
}

const FIELDS = [
  ["tap", "Tap"],
  ["trim", "Trim in dB"],
  ["delay_ms", "Delay in ms"],
  ["polarity", "Polarity inverted"],
  ["device", "Device"],
  ["label", "Connected"],
] as const;

/** Many outputs in one line, as a person says them. Who would lose something by it is shown first. */
function TypedOutputs({ box }: { box: string }) {
  const taking = useTaking();
  const [text, setText] = useState("");
  const field = useRef<HTMLInputElement>(null);
  const typed = [text, setText] as const;
  return (
    <>
      <form
        aria-label="Patch many outputs"
        className="flex items-center gap-2 pb-2 shrink-0"
        onSubmit={(event) => {
          event.preventDefault();
          const wanted = text.trim();
          if (wanted)
            void sending([typed], () => taking.ask({ action: "patch_outputs", text: wanted }));
          field.current?.focus();
        }}
      >
        <input
          ref={field}
          aria-label="What goes where"
          placeholder={`1-20 direct to ${box} 1, before fader`}
          title="Several at once, behind a semicolon: house to Deck 1; mix 3 L to Deck 5; group 1 to Deck 7"
          className="h-8 px-2 rounded-md border border-edge bg-card flex-1 min-w-0 max-w-xl"
          maxLength={400}
          value={text}
          onChange={(event) => setText(event.currentTarget.value)}
        />
        <Button small type="submit">
          Patch
        </Button>
      </form>
      {taking.bar}
    </>
  );
}
