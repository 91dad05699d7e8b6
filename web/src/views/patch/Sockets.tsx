import { type KeyboardEvent, useMemo, useRef, useState } from "react";
import { type ShowState, valueOf } from "../../data/show";
import { useShow } from "../../data/use";
import { runs } from "../../ui/ranges";

/** For each input socket, the names of the lines on it and the numbers of the channels it feeds. */
function usage(state: ShowState): ReadonlyMap<string, { lines: string; channels: string }> {
  const found = new Map<string, { lines: string[]; channels: number[] }>();
  const at = (socket: string) => {
    let entry = found.get(socket);
    if (!entry) found.set(socket, (entry = { lines: [], channels: [] }));
    return entry;
  };
  for (const line of state.lines) {
    const name = String(valueOf(state, `line/${line}/name`));
    const left = valueOf(state, `line/${line}/socket`) as string | null;
    const right = valueOf(state, `line/${line}/socket_right`) as string | null;
    if (left) at(left).lines.push(right ? `${name} L` : name);
    if (right) at(right).lines.push(`${name} R`);
  }
  for (const channel of state.channels) {
    const source = valueOf(state, `channel/${channel}/source`) as string | null;
    if (source) at(source).channels.push(channel);
  }
  return new Map(
    [...found].map(([socket, entry]) => [
      socket,
      { lines: entry.lines.join(", "), channels: entry.channels.join(", ") },
    ]),
  );
}

/** The input sockets of one box at a time; dragging or Shift takes several. */
export function Sockets({ chosen, onChoose }: { chosen: string; onChoose: (text: string) => void }) {
  const boxes = useShow((state) => state.desk!.boxes).filter((box) => box.inputs > 0);
  const values = useShow((state) => state.values);
  const lines = useShow((state) => state.lines);
  const channels = useShow((state) => state.channels);
  const state = useShow((all) => all);
  // Lines and channels are few beside all the values: this is found again only when one moves.
  const used = useMemo(() => usage(state), [values, lines, channels]); // eslint-disable-line react-hooks/exhaustive-deps
  const [boxKey, setBoxKey] = useState(() => boxes.find((box) => box.key !== "local")?.key ?? boxes[0]?.key);
  const box = boxes.find((one) => one.key === boxKey) ?? boxes[0];
  const from = useRef<number | null>(null);
  const dragging = useRef(false);
  if (!box) return <p className="text-soft">This desk has no inputs.</p>;

  const picked = picks(chosen, box.short);
  const taken = (key: string, count: number) => {
    let sum = 0;
    for (let n = 1; n <= count; n++) if (used.has(`input/${key}/${n}`)) sum++;
    return sum;
  };
  const pick = (number: number, extend: boolean) => {
    if (!extend || from.current === null) from.current = number;
    const low = Math.min(from.current, number);
    const high = Math.max(from.current, number);
    onChoose(`${box.short} ${runs(Array.from({ length: high - low + 1 }, (_, index) => low + index))}`);
  };
  const onKey = (event: KeyboardEvent<HTMLElement>, number: number) => {
    const step = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
    if (!step) return;
    event.preventDefault();
    const next = Math.min(box.inputs, Math.max(1, number + step));
    if (event.shiftKey) {
      if (from.current === null) from.current = number;
      pick(next, true);
    }
    document.getElementById(`socket-${box.key}-${next}`)?.focus();
  };

  return (
    <section aria-label="Sockets" className="flex flex-col min-h-0 rounded-xl bg-floor border border-line">
      <div role="tablist" aria-label="Boxes" className="flex gap-1 p-1.5 border-b border-line">
        {boxes.map((one) => (
          <button
            key={one.key}
            type="button"
            role="tab"
            aria-selected={one.key === box.key}
            title={one.name}
            onClick={() => setBoxKey(one.key)}
            className={`h-8 px-2.5 rounded-lg cursor-pointer ${one.key === box.key ? "bg-raise font-semibold" : "text-soft hover:text-paper"}`}
          >
            {one.short} <span className="text-faint text-[12px]">{taken(one.key, one.inputs)}/{one.inputs}</span>
          </button>
        ))}
      </div>
      <div
        className="scrolls p-1.5 flex flex-col gap-[2px] select-none"
        role="listbox"
        aria-label={`${box.name}, inputs`}
        aria-multiselectable
        onPointerUp={() => (dragging.current = false)}
        onPointerLeave={() => (dragging.current = false)}
      >
        {Array.from({ length: box.inputs }, (_, index) => index + 1).map((number) => {
          const socket = `input/${box.key}/${number}`;
          const entry = used.get(socket);
          const on = picked.has(number);
          return (
            <button
              key={number}
              id={`socket-${box.key}-${number}`}
              type="button"
              role="option"
              aria-selected={on}
              data-socket={socket}
              onPointerDown={(event) => {
                dragging.current = true;
                pick(number, event.shiftKey);
              }}
              onPointerEnter={() => dragging.current && pick(number, true)}
              onKeyDown={(event) => {
                if (event.key === "Enter" || event.key === " ") {
                  event.preventDefault();
                  pick(number, event.shiftKey);
                } else onKey(event, number);
              }}
              className={`grid grid-cols-[54px_minmax(0,1fr)_auto_auto] items-center gap-2 h-[27px] shrink-0 rounded-md px-2 text-left cursor-pointer ${
                on ? "bg-sun text-on-sun" : entry ? "bg-card" : "hover:bg-card"
              }`}
            >
              <span className={on ? "" : "text-faint"}>
                {box.short} {number}
              </span>
              <span className={`truncate ${!entry?.lines && !on ? "text-faint" : ""}`}>
                {entry?.lines || (entry?.channels ? "nothing plugged in" : "free")}
              </span>
              <Phantom socket={socket} preamps={box.preamps} />
              <span className={`text-[12px] ${on ? "" : "text-soft"}`}>{entry?.channels ? `ch ${entry.channels}` : ""}</span>
            </button>
          );
        })}
      </div>
    </section>
  );
}

function Phantom({ socket, preamps }: { socket: string; preamps: boolean }) {
  const on = useShow((state) => preamps && valueOf(state, `${socket}/phantom`) === true);
  return on ? <span className="text-[11px] font-semibold text-coral border border-coral rounded px-1 bg-card">48 V</span> : <span />;
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
