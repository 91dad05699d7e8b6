import { type KeyboardEvent, useRef, useState } from "react";
import { usePatched, useShow } from "../../data/use";
import { Tabs } from "../../ui/Tabs";
import { runs } from "../../ui/ranges";
import { PreampFields } from "./PreampFields";
import { usage } from "./usage";

const COLUMNS = "grid-cols-[minmax(0,1fr)_30px_50px_28px_40px_40px]";

interface Props {
  chosen: string;
  onChoose: (text: string) => void;
  /** Only sockets whose name or line holds this; the box with the first of them comes forward. */
  filter: string;
}

/** The input sockets of one box at a time, with their preamps; dragging or Shift takes several. */
export function Sockets({ chosen, onChoose, filter }: Props) {
  const boxes = useShow((state) => state.desk!.boxes).filter((box) => box.inputs > 0);
  const used = usePatched(usage);
  const [boxKey, setBoxKey] = useState(() => boxes.find((box) => box.key !== "local")?.key ?? boxes[0]?.key);
  const wanted = filter.trim().toLowerCase();
  const matches = (one: (typeof boxes)[number]) =>
    Array.from({ length: one.inputs }, (_, index) => index + 1).filter((number) => {
      const entry = used.get(`input/${one.key}/${number}`);
      return !wanted || `${one.short} ${number} / ${entry?.lines ?? ""}`.toLowerCase().includes(wanted);
    });
  const preferred = boxes.find((one) => one.key === boxKey) ?? boxes[0];
  const box = preferred && matches(preferred).length > 0 ? preferred : (boxes.find((one) => matches(one).length > 0) ?? preferred);
  const from = useRef<number | null>(null);
  const dragging = useRef(false);
  if (!box) return <p className="text-soft">This desk has no inputs.</p>;

  const picked = picks(chosen, box.short);
  const taken = (key: string, count: number) => {
    let sum = 0;
    for (let n = 1; n <= count; n++) if (used.has(`input/${key}/${n}`)) sum++;
    return `${sum}/${count}`;
  };
  const pick = (number: number, extend: boolean) => {
    if (!extend || from.current === null) from.current = number;
    const low = Math.min(from.current, number);
    const high = Math.max(from.current, number);
    onChoose(`${box.short} ${runs(Array.from({ length: high - low + 1 }, (_, index) => low + index))}`);
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
    const next = Math.min(box.inputs, Math.max(1, number + step));
    if (event.shiftKey) {
      from.current ??= number;
      pick(next, true);
    }
    document.getElementById(`socket-${box.key}-${next}`)?.focus();
  };

  return (
    <section aria-label="Sockets" className="flex flex-col min-h-0 rounded-xl bg-floor border border-line">
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
        className="scrolls px-1.5 pb-1.5 flex flex-col gap-[2px] select-none"
        data-grid
        onPointerUp={() => (dragging.current = false)}
        onPointerLeave={() => (dragging.current = false)}
      >
        {matches(box).map((number) => {
          const socket = `input/${box.key}/${number}`;
          const entry = used.get(socket);
          const on = picked.has(number);
          return (
            <div
              key={number}
              data-socket={socket}
              className={`grid ${COLUMNS} items-center gap-1 h-[27px] shrink-0 rounded-md pr-1 ${entry ? "bg-card" : "hover:bg-card"}`}
            >
              <button
                id={`socket-${box.key}-${number}`}
                type="button"
                aria-pressed={on}
                onPointerDown={(event) => {
                  dragging.current = true;
                  pick(number, event.shiftKey);
                }}
                onPointerEnter={() => dragging.current && pick(number, true)}
                onKeyDown={(event) => onKey(event, number)}
                className={`grid grid-cols-[46px_minmax(0,1fr)] self-stretch items-center rounded-md pl-2 text-left cursor-pointer ${on ? "bg-sun text-on-sun" : ""}`}
              >
                <span className={on ? "" : "text-faint"}>
                  {box.short} {number}
                </span>
                <span className={`truncate ${!entry?.lines && !on ? "text-faint" : ""}`}>
                  {entry?.lines || (entry?.channels ? "nothing plugged in" : "free")}
                </span>
              </button>
              {box.preamps ? <PreampFields socket={socket} name={`${box.short} ${number}`} /> : <span className="col-span-4" />}
              <span className="text-[12px] text-soft truncate" title={entry?.channels.includes(",") ? "These channels share the preamp" : undefined}>
                {entry?.channels && `${entry.channels.includes(",") ? "⚭" : "ch"} ${entry.channels}`}
              </span>
            </div>
          );
        })}
      </div>
    </section>
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
