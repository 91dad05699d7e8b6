/** What things are called: the file that is named has values and things as JSON; their names are said. For test_shown.py. */
import { readFileSync } from "node:fs";
import { received, setDesk, store } from "../web/src/data/show";
import type { Desk, Me, Value } from "../web/src/data/types";
import { socketName, stripName } from "../web/src/data/use";

const desk = JSON.parse(readFileSync("src/data/generated/desk.json", "utf8")) as Desk;
setDesk({ name: "engineer", shows: [], desks: [] } as unknown as Me, desk);
const { values, strips, sockets } = JSON.parse(readFileSync(process.argv.at(-1)!, "utf8")) as {
  values: Record<string, Value>;
  strips: string[];
  sockets: string[];
};
received({ type: "snapshot", revision: 1, values });
const state = store.getState();
process.stdout.write(
  JSON.stringify([
    strips.map((strip) => stripName(state, strip)),
    sockets.map((socket) => socketName(state, socket)),
  ]),
);
