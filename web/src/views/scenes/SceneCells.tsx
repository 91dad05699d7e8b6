import { useCallback, useMemo, useState } from "react";
import { holderOf } from "../../data/address";
import { store } from "../../data/show";
import type { Ask, Scene } from "../../data/types";
import { useLink } from "../../data/use";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Entry } from "../../ui/Entry";
import { type CellMark, PaintTable } from "../../ui/PaintTable";
import { sending } from "../../ui/sending";
import { HeldValues } from "./HeldValues";

const MARK = { all: "m", some: "r", asleep: "z", none: ".", "no such": "-" } as const;
const WORDS = {
  m: "carried",
  r: "some of it carried",
  z: "asleep, with its values",
  ".": "not carried",
};
const WIDTH = 36;

/** What a scene carries of whom: painted; and of the strip in hand every value. */
export function SceneCells({ scene }: { scene: Scene }) {
  const link = useLink();
  const [strip, setStrip] = useState<string | null>(null);
  const rows = useMemo(() => scene.strips.map((one) => one.holder), [scene]);
  const columns = useMemo(() => scene.aspects.map(([key]) => key), [scene]);
  const word = useMemo(() => new Map(scene.aspects.map(([key, one]) => [key, one])), [scene]);
  const marks = useMemo(
    () => new Map(scene.strips.map((one) => [one.holder, one.marks.map((m) => MARK[m])])),
    [scene],
  );
  const markOf = useCallback(
    (holder: string, aspect: string): CellMark =>
      marks.get(holder)?.[columns.indexOf(aspect)] ?? "-",
    [marks, columns],
  );
  const onTake = useCallback((taken: readonly string[]) => setStrip(taken[0] ?? null), []);
  const give = (cells: readonly string[], on: boolean) => {
    const strips = new Map<string, string[]>();
    for (const cell of cells) {
      const [holder, aspect] = holderOf(cell);
      strips.set(holder, [...(strips.get(holder) ?? []), aspect]);
    }
    void link.do({
      action: "set_cells",
      scene: scene.scene,
      strips: [...strips].map(([holder, aspects]) => ({ holder, cells: [], aspects })),
      on,
    });
  };
  return (
    <div className="flex-1 min-h-0 flex gap-3 slim:flex-col">
      <div className="flex-1 min-w-0 min-h-0 flex flex-col gap-2">
        <TypedCells scene={scene} />
        <PaintTable
          label={`What scene ${store.getState().values.get(`${scene.scene}/name`) ?? ""} carries`}
          rows={rows}
          columns={columns}
          width={WIDTH}
          headHeight={120}
          headWord="strip"
          head={(column) => (
            <span
              key={column}
              role="columnheader"
              data-column-head={column}
              className="shrink-0 flex items-end justify-center pb-1.5 text-soft text-[12.5px]"
              style={{ width: WIDTH }}
            >
              <span className="[writing-mode:vertical-rl] rotate-180 whitespace-nowrap">
                {word.get(column)}
              </span>
            </span>
          )}
          rowEnd={() => null}
          marks={(_, holder, some) => some.map((aspect) => markOf(holder, aspect)).join("")}
          isOn={(cell) => {
            return markOf(...holderOf(cell)) === "m";
          }}
          words={WORDS}
          draw={(mark) => <Mark mark={mark} />}
          onGive={give}
          onTake={onTake}
        />
      </div>
      {strip && rows.includes(strip) && <HeldValues scene={scene.scene} holder={strip} />}
    </div>
  );
}

/** The same typed: which strips, and what of them. */
function TypedCells({ scene }: { scene: Scene }) {
  const link = useLink();
  const [strips, setStrips] = useState("");
  const [aspect, setAspect] = useState("fader");
  const set = async (on: boolean) => {
    const ask = {
      action: "set_cells",
      scene: scene.scene,
      typed: strips,
      aspects: [aspect],
      on,
    } satisfies Ask;
    await sending([[strips, setStrips]], () => link.do(ask, { quiet: false }));
  };
  return (
    <form
      className="flex items-center gap-2 flex-wrap shrink-0"
      onSubmit={(event) => {
        event.preventDefault();
        void set(true);
      }}
    >
      <Entry
        small
        label="Strips to put in or take out"
        placeholder="1-8, mix 1, dca 2"
        value={strips}
        onChange={setStrips}
        className="w-40"
      />
      <Choice
        boxed
        label="What of them"
        value={aspect}
        options={[...scene.aspects, ["all", "all of it"]]}
        className="h-8 coarse:h-11"
        onChange={setAspect}
      />
      <Button small type="submit" disabled={!strips.trim()}>
        Put in
      </Button>
      <Button small tone="quiet" disabled={!strips.trim()} onClick={() => void set(false)}>
        Take out
      </Button>
    </form>
  );
}

function Mark({ mark }: { mark: CellMark }) {
  if (mark === "m") return <span className="drawn w-4 h-4 rounded-full bg-iris" />;
  if (mark === "r") return <span className="w-4 h-4 rounded-full border-[5px] border-iris" />;
  if (mark === "z")
    return <span className="w-3.5 h-3.5 rounded-full border-2 border-dashed border-faint" />;
  return null;
}
