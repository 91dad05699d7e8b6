/** The strips under a run of places, in their order, as they can be typed again. */
import { type ShowState, valueIn } from "../../data/show";

export function listText(state: ShowState, stem: string): string {
  const bay = Number(stem.split("/")[stem.startsWith("bank/") ? 2 : 1]);
  const faders = state.desk!.bays[bay - 1]?.faders ?? 0;
  const parts: { kind: string; from: number; to: number }[] = [];
  for (let place = 1; place <= faders; place++) {
    const strip = valueIn(state, `${stem}/${place}`);
    if (typeof strip !== "string") continue;
    const [kind, number] = strip.split("/");
    const last = parts.at(-1);
    if (last && last.kind === kind && number && last.to + 1 === Number(number)) last.to++;
    else parts.push({ kind: kind!, from: Number(number ?? 0), to: Number(number ?? 0) });
  }
  return parts
    .map(({ kind, from, to }, index) => {
      if (from === 0) return kind;
      // a number alone is a channel's, until another kind is named
      const before = parts.slice(0, index).every((part) => part.kind === "channel");
      if (kind === "channel" && before) return from === to ? `${from}` : `${from}-${to}`;
      const span = from === to ? `${from}` : `${from}-${to}`;
      return `${kind} ${span}`;
    })
    .join(", ");
}
