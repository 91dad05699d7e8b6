import { thingOf } from "../../data/address";
import { valueIn } from "../../data/show";
import { socketName, useShow } from "../../data/use";
import { PreampFields } from "./PreampFields";

/** Gain, pad and 48 V at the sockets of a line, to be set from wherever the line is shown. */
export function LinePreamps({ line }: { line: number }) {
  const left = useShow((state) => preampOf(state, line, "socket"));
  const right = useShow((state) => preampOf(state, line, "socket_right"));
  const names = useShow((state) =>
    [left, right].map((socket) => socketName(state, socket)).join("|"),
  ).split("|");
  return [left, right].map(
    (socket, place) =>
      socket && (
        <span key={socket} className="flex flex-wrap items-center gap-1.5" data-preamp={socket}>
          <PreampFields socket={socket} name={names[place]!} words />
        </span>
      ),
  );
}

/** The socket of a side of a line, if it has a preamp. */
function preampOf(state: Parameters<typeof valueIn>[0], line: number, leaf: string): string | null {
  const socket = valueIn(state, `line/${line}/${leaf}`) as string | null;
  const box =
    socket === null ? undefined : state.desk!.boxes.find((one) => one.key === thingOf(socket).box);
  return box?.preamps ? socket : null;
}
