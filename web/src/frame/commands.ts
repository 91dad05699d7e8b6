/** What can be done by its name, from Find: each at once, and undone as ever. */
import { byHand } from "../data/hand";
import type { Link } from "../data/link";
import { type ShowState, valueIn } from "../data/show";
import type { Ask } from "../data/types";
import { stripName } from "../data/use";
import { SOLO_WORD } from "../data/words";

export interface Command {
  key: string;
  name: string;
  go: (navigate: (to: string) => void) => void;
}

/** The commands that make sense as the show stands. */
export function commands(state: ShowState, link: Link): Command[] {
  const ask = (name: string, what: Ask): Command => ({
    key: `command ${name}`,
    name,
    go: () => void link.do(what, { quiet: false }),
  });
  const keys = [
    ...state.dcas.map((number) => [`dca/${number}`, "mute", "Mute", "Unmute"] as const),
    ...state.mute_groups.map((number) => [`mute_group/${number}`, "on", "Mute", "Open"] as const),
    ...state.gangs.map((number) => [`gang/${number}`, "suspended", "Rest", "Resume"] as const),
  ].map(([thing, leaf, shut, open]) => {
    const on = valueIn(state, `${thing}/${leaf}`) === true;
    const moves = [{ address: `${thing}/${leaf}`, value: !on }];
    return ask(`${on ? open : shut} ${stripName(state, thing)}`, byHand(moves));
  });
  const solo = Object.entries(SOLO_WORD).map(([typed, words]) =>
    ask(`Solo ${words}`, {
      action: "moves",
      moves: [{ address: "show/solo", typed }],
      says: `Solo ${words}`,
    }),
  );
  return [
    { key: "command undo", name: "Undo", go: () => void link.undo() },
    { key: "command redo", name: "Redo", go: () => void link.redo() },
    ...(state.soloed.size > 0 ? [ask("Clear solos", { action: "clear_solos" })] : []),
    ...solo,
    ask("Patch all lines", { action: "patch_lines", lines: [] }),
    ask("Set all gains as suggested", { action: "suggest_gains", lines: [] }),
    ask("Patch mixes to free outputs", { action: "patch_buses", buses: [] }),
    ask("Make a seal of all inputs", { action: "mute_all", what: "inputs" }),
    ask("Make a seal of all ears", { action: "mute_all", what: "ears" }),
    { key: "command print", name: "Print or export", go: (navigate) => navigate("/paper") },
    ...keys,
    ...liftKeys(state).map(({ lift, strip, up }) =>
      ask(up ? `Bring ${stripName(state, strip)} back` : `Lift ${stripName(state, strip)}`, {
        action: "lift",
        lift,
        strips: [strip],
        on: !up,
      }),
    ),
  ];
}

/** Who can be lifted, by which lift, and whether they are. */
function liftKeys(state: ShowState): { lift: string; strip: string; up: boolean }[] {
  const found = [];
  for (let n = 1; n <= (state.desk?.lifts ?? 0); n++) {
    const [backing, lead] = ["backing", "lead"].map((leaf) => valueIn(state, `lift/${n}/${leaf}`));
    if (!backing || !lead) continue;
    for (const channel of state.channels) {
      const strip = `channel/${channel}`;
      if (valueIn(state, `${strip}/${backing}/on`) !== true) continue;
      const up = valueIn(state, `${strip}/${lead}/on`) === true;
      found.push({ lift: `lift/${n}`, strip, up });
    }
  }
  return found;
}
