import { type KeyboardEvent, useCallback, useMemo, useRef, useState } from "react";
import { hasPhrase } from "../../data/search";
import type { Ask, Desk } from "../../data/types";
import { usePatched, useShow } from "../../data/use";
import { usePhone, useRowHeight } from "../../ui/media";
import { RowList } from "../../ui/RowList";
import { runs } from "../../ui/ranges";
import { useTabIndex } from "../../ui/reach";
import { SetMany } from "../../ui/SetMany";
import { Tabs } from "../../ui/Tabs";
import { PreampFields } from "./PreampFields";
import { type Usage, usage } from "./usage";

const COLUMNS =
  "grid-cols-[minmax(0,1fr)_30px_50px_28px_40px_40px] coarse:grid-cols-[minmax(0,1fr)_34px_40px_44px_46px_40px]";

interface Props {
  chosen: string;
  onChoose: (text: string) => void;
  /** An edit of chosen sockets: 48 V is switched only after its list was seen. */
  onSet: (ask: Ask) => void;
  /** Only sockets whose name or line holds this; the box with the first of them comes forward. */
  filter: string;
}

/** The input sockets of one box at a time, with their preamps; dragging or Shift takes several. */
export function Sockets(props: Props) {
  const all = useShow((state) => state.desk!.boxes);
  const boxes = useMemo(() => all.filter((box) => box.inputs > 0), [all]);
  if (boxes.length === 0) return <p className="text-soft">This desk has no inputs.</p>;
  return <BoxSockets {...props} boxes={boxes} />;
}

function BoxSockets({ chosen, onChoose, onSet, filter, boxes }: Props & { boxes: Desk["boxes"] }) {
  const used = usePatched(usage);
  const [boxKey, setBoxKey] = useState(
    // stage boxes come before the desk's own sockets, and what has no preamps last
    () =>
      (boxes.find((one) => one.preamps && one.key !== "local") ?? boxes.find((one) => one.preamps))
        ?.key,
  );
  const matches = useCallback(
    (one: (typeof boxes)[number]) => {
      const said = hasPhrase(filter);
      return Array.from({ length: one.inputs }, (_, index) => index + 1).filter((number) =>
        said(`${one.short} ${number} / ${used.get(`input/${one.key}/${number}`)?.lines ?? ""}`),
      );
    },
    [used, filter],
  );
  const preferred = boxes.find((one) => one.key === boxKey) ?? boxes[0]!;
  const box =
    matches(preferred).length > 0
      ? preferred
      : (boxes.find((one) => matches(one).length > 0) ?? preferred);
  const from = useRef<number | null>(null);
  const dragging = useRef(false);
  const numbers = useMemo(() => matches(box), [box, matches]);
  const picked = useMemo(() => picks(chosen, box.short), [chosen, box.short]);
  const many = useMemo(
    () =>
      [...picked]
        .filter((one) => one >= 1 && one <= box.inputs)
        .map((one) => `input/${box.key}/${one}`),
    [picked, box],
  );
  const taken = (key: string, count: number) => {
    let sum = 0;
    for (let n = 1; n <= count; n++) if (used.has(`input/${key}/${n}`)) sum++;
    return `${sum}/${count}`;
  };
  const pick = (number: number, extend: boolean) => {
    if (!extend || from.current === null) from.current = number;
    const low = Math.min(from.current, number);
    const high = Math.max(from.current, number);
    // what a filter hides lies between, but nobody means it
    onChoose(`${box.short} ${runs(numbers.filter((one) => one >= low && one <= high))}`);
  };
  const onKey = (event: KeyboardEvent<HTMLElement>, number: number) => {
    if (event.key === "Enter" || event.key === " ") {
      event.preventDefault();
      pick(number, event.shiftKey);
      return;
    }
    const step = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
    if (!step) return;
    event.preventDefault();
    const next = numbers[numbers.indexOf(number) + step] ?? number;
    if (event.shiftKey) {
      from.current ??= number;
      pick(next, true);
    }
    document.getElementById(`socket-${box.key}-${next}`)?.focus();
  };

  const hands = useRef({ pick, onKey });
  hands.current = { pick, onKey };
  const row = useCallback(
    (number: number) => (
      <SocketRow
        box={box}
        number={number}
        entry={used.get(`input/${box.key}/${number}`)}
        on={picked.has(number)}
        onPick={(at, extend) => {
          dragging.current = true;
          hands.current.pick(at, extend);
        }}
        onOver={(at) => dragging.current && hands.current.pick(at, true)}
        onKey={(event, at) => hands.current.onKey(event, at)}
      />
    ),
    [box, used, picked],
  );
  const height = useRowHeight(29);

  return (
    <section
      aria-label="Sockets"
      className="flex flex-col min-h-0 rounded-xl bg-floor border border-line"
    >
      <div className="p-1.5 border-b border-line">
        <Tabs
          label="Boxes"
          tabs={boxes.map((one) => ({
            key: one.key,
            word: one.short,
            title: one.name,
            note: taken(one.key, one.inputs),
          }))}
          chosen={box.key}
          onChoose={setBoxKey}
        />
      </div>
      {box.preamps && many.length > 1 && (
        <div className="px-2 pt-1.5">
          <SetMany
            label="Preamps of the chosen sockets"
            word={`sockets of ${box.short}`}
            of={many}
            fields={FIELDS}
            onSet={onSet}
          />
        </div>
      )}
      <div className={`grid ${COLUMNS} gap-1 px-3.5 py-1 text-[12px] text-faint`}>
        <span>Socket and line</span>
        {box.preamps ? (
          <>
            <span className="text-right pr-1.5">Gain</span>
            <span className="text-right">dBFS</span>
            <span className="text-center">Pad</span>
            <span className="text-center">48 V</span>
          </>
        ) : (
          <span className="col-span-4">no preamps here</span>
        )}
        <span>Feeds</span>
      </div>
      <div
        className="flex flex-col flex-1 min-h-0 select-none"
        onPointerUp={() => (dragging.current = false)}
        onPointerLeave={() => (dragging.current = false)}
      >
        <RowList
          label={`Sockets of ${box.name}`}
          keys={numbers}
          height={height}
          row={row}
          className="px-1.5 pb-1.5"
        />
      </div>
    </section>
  );
}

const FIELDS = [
  ["gain", "Gain in dB"],
  ["pad", "Pad"],
  ["phantom", "48 V"],
] as const;

interface RowProps {
  box: { key: string; short: string; preamps: boolean };
  number: number;
  entry: Usage | undefined;
  on: boolean;
  onPick: (number: number, extend: boolean) => void;
  /** The pointer goes over it while a button is held. */
  onOver: (number: number) => void;
  onKey: (event: KeyboardEvent<HTMLElement>, number: number) => void;
}

function SocketRow({ box, number, entry, on, onPick, onOver, onKey }: RowProps) {
  const socket = `input/${box.key}/${number}`;
  const phone = usePhone(); // the tab above says which box
  return (
    <div
      data-socket={socket}
      data-subject={socket}
      className={`grid ${COLUMNS} items-center gap-1 h-[27px] coarse:h-11 rounded-md pr-1 ${entry ? "bg-card" : "hover:bg-card"}`}
    >
      <button
        id={`socket-${box.key}-${number}`}
        type="button"
        tabIndex={useTabIndex()}
        aria-pressed={on}
        onPointerDown={(event) => event.pointerType !== "touch" && onPick(number, event.shiftKey)}
        // a finger that lands may be about to scroll: it picks when it is lifted where it came down
        onClick={(event) =>
          (event.nativeEvent as PointerEvent).pointerType === "touch" && onPick(number, false)
        }
        onPointerEnter={() => onOver(number)}
        onKeyDown={(event) => onKey(event, number)}
        // as wide as the box is called, and three figures
        style={{ gridTemplateColumns: `${phone ? 4 : box.short.length + 4}ch minmax(0,1fr)` }}
        className={`grid self-stretch items-center rounded-md pl-2 text-left cursor-pointer ${on ? "bg-sun text-on-sun" : ""}`}
      >
        <span className={`whitespace-nowrap ${on ? "" : "text-faint"}`}>
          <span className={phone ? "sr-only" : ""}>{box.short} </span>
          {number}
        </span>
        <span dir="auto" className={`truncate ${!entry?.lines && !on ? "text-faint" : ""}`}>
          {entry?.lines || (entry?.channels ? "nothing plugged in" : "free")}
        </span>
      </button>
      {box.preamps ? (
        <PreampFields socket={socket} name={`${box.short} ${number}`} />
      ) : (
        <span className="col-span-4" />
      )}
      <span
        dir="auto"
        className="text-[12px] text-soft truncate"
        title={entry?.channels.includes(",") ? "These channels share the preamp" : undefined}
      >
        {entry?.channels && `${entry.channels.includes(",") ? "⚭" : "ch"} ${entry.channels}`}
      </span>
    </div>
  );
}

/** Numbers of this box within what is typed, so that typing shows on the list. For drawing only. */
function picks(typed: string, short: string): ReadonlySet<number> {
  const found = new Set<number>();
  const trimmed = typed.trim().toLowerCase();
  if (!trimmed.startsWith(short.toLowerCase())) return found;
  for (const part of trimmed.slice(short.length).split(",")) {
    const match = /^\s*(\d+)\s*(?:-\s*(\d+))?\s*$/.exec(part);
    if (!match) continue;
    const first = Number(match[1]);
    const last = Math.min(Number(match[2] ?? match[1]), first + 999);
    for (let number = first; number <= last; number++) found.add(number);
  }
  return found;
}
