/** The strips under a run of places, in their order, as they can be typed again. */
import { isOf, lastOf, numberOf, thingOf } from "../../data/address";
import { type ShowState, valueIn } from "../../data/show";

export function listText(state: ShowState, stem: string): string {
  // "bank/2/1" is bay 1 of bank 2, "bay/1/fixed" what stands on it on every bank
  const bay = isOf(stem, "bank") ? Number(lastOf(stem)) : numberOf(stem);
  const places = isOf(stem, "bank")
    ? state.desk!.bank_places
    : (state.desk!.bays[bay - 1]?.faders ?? 0);
  const parts: { kind: string; from: number; to: number }[] = [];
  for (let place = 1; place <= places; place++) {
    const strip = valueIn(state, `${stem}/${place}`);
    if (typeof strip !== "string") continue;
    const { kind, number } = thingOf(strip);
    const last = parts.at(-1);
    if (last && last.kind === kind && number && last.to + 1 === number) last.to++;
    else parts.push({ kind, from: number, to: number });
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
