/** Who uses which input socket, put together from the show's values for drawing. */
import { type ShowState, valueIn } from "../../data/show";
import { stripName } from "../../data/use";

export interface Usage {
  lines: string;
  channels: string;
  /** Colour of the first line on it; of a free socket, none. */
  colour: string;
}

/** For each input socket, the names of the lines on it and the numbers of the channels it feeds. */
export function usage(state: ShowState): ReadonlyMap<string, Usage> {
  const found = new Map<string, { lines: string[]; channels: number[]; colour: string }>();
  const at = (socket: string) => {
    let entry = found.get(socket);
    if (!entry) {
      entry = { lines: [], channels: [], colour: "" };
      found.set(socket, entry);
    }
    return entry;
  };
  for (const line of state.lines) {
    const name = stripName(state, `line/${line}`);
    const left = valueIn(state, `line/${line}/socket`) as string | null;
    const right = valueIn(state, `line/${line}/socket_right`) as string | null;
    const colour = String(valueIn(state, `line/${line}/colour`));
    for (const [socket, side] of [
      [left, right ? " L" : ""],
      [right, " R"],
    ] as const) {
      if (!socket) continue;
      const entry = at(socket);
      entry.lines.push(`${name}${side}`);
      entry.colour ||= colour;
    }
  }
  for (const channel of state.channels) {
    const leaf = valueIn(state, `channel/${channel}/on_spare`) ? "spare" : "source";
    const source = valueIn(state, `channel/${channel}/${leaf}`) as string | null;
    if (source) at(source).channels.push(channel);
  }
  return new Map(
    [...found].map(([socket, entry]) => [
      socket,
      {
        lines: entry.lines.join(", "),
        channels: entry.channels.join(", "),
        colour: entry.colour || "sand",
      },
    ]),
  );
}
