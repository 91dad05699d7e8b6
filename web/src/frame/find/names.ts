/** Names that this page knows by itself: what Find has while the server is away. */
import { inWords, numberOf } from "../../data/address";
import { sceneText } from "../../data/scenes";
import { hasWords } from "../../data/search";
import { type ShowState, valueIn } from "../../data/show";
import type { FoundAnswer } from "../../data/types";
import { socketName, stripName } from "../../data/use";
import { VIEW_WORD } from "../places";

const MOST = 10;

function there(view: string, at: string, title: string, about: string): FoundAnswer {
  return { group: "go", title, about, view, at, beside: "", ask: null, here: null, careful: false };
}

/** What of the show has a name or number with these words; the browser answers no wish. */
export function namesLike(state: ShowState, text: string): FoundAnswer[] {
  if (!text.trim()) return [];
  const said = hasWords(text);
  return everything(state)
    .filter((one) => said(`${one.title} ${one.about}`))
    .slice(0, MOST);
}

/** Groups that share gain and have a name. */
function* namedGroups(state: ShowState): Generator<number> {
  for (let n = 1; n <= (state.desk?.sharing_groups ?? 0); n++)
    if (valueIn(state, `sharing/${n}/name`)) yield n;
}

function everything(state: ShowState): FoundAnswer[] {
  const name = (thing: string) => stripName(state, thing);
  const of = (kind: string, numbers: Iterable<number>, view: string, word = kind) =>
    [...numbers].map((n) => there(view, `${kind}/${n}`, name(`${kind}/${n}`), `${word} ${n}`));
  const channels = state.channels.map((n) => {
    const source = valueIn(state, `channel/${n}/source`) as string | null;
    const about = `channel ${n} ${socketName(state, source)}`;
    return there("hears", `channel/${n}`, name(`channel/${n}`), about);
  });
  const alone = ["house", "mono"].map((bus) => there("mixes", bus, name(bus), inWords(bus)));
  return [
    ...channels,
    ...of("return", state.returns, "mixes"),
    ...of("mix", state.mixes, "mixes"),
    ...alone,
    ...of("group", state.groups, "mixes"),
    ...of("matrix", state.matrices, "mixes"),
    ...of("dca", state.dcas, "dcas", "DCA"),
    ...of("mute_group", state.mute_groups, "mutes", "mute group"),
    ...of("gang", state.gangs, "gangs"),
    ...of("bank", state.banks, "banks"),
    ...of("sharing", namedGroups(state), "sharing", "shared gain"),
    ...state.scene_ids.map((scene) => there("scenes", scene, sceneText(state, scene), "scene")),
    ...state.lines.map((n) => {
      const who = String(valueIn(state, `line/${n}/performer`));
      const title = stripName(state, `line/${n}`);
      return there("lines", `line/${n}`, title, `line ${n} ${who}`.trim());
    }),
    ...[...state.parts].map((part) => there("cast", part, name(part), `part ${numberOf(part)}`)),
    ...of("promise", state.promises, "wrong"),
    ...Object.entries(VIEW_WORD).map(([view, word]) => there(view, "", word, "view")),
  ];
}
