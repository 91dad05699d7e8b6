/** Which gangs and pairs a strip is in, as the lists have it. */
import { thingOf } from "./address";
import type { ShowState } from "./show";
import { stripName, useShow } from "./use";

/** The odd side for the even of a linked pair; else the strip itself. */
export const memberFor = (state: ShowState, strip: string): string =>
  state.pairs.get(strip) ?? strip;

/** The other side of a pair by its odd one; "" where it is none. */
export const evenOf = (state: ShowState, strip: string): string => {
  const { kind, number } = thingOf(strip);
  const even = `${kind}/${Number(number) + 1}`;
  return state.pairs.get(even) === strip ? even : "";
};

/** What a strip goes by where a pair is one: "Accordion" for "Accordion L" and "Accordion R". */
export function memberName(state: ShowState, strip: string): string {
  const name = stripName(state, strip);
  const even = evenOf(state, strip);
  const stem = name.replace(/ [Ll](eft)?$/, "");
  const other = even && stripName(state, even).replace(/ [Rr](ight)?$/, "");
  return stem === other ? stem : name;
}

export const gangsOf = (state: ShowState, strip: string): string[] =>
  state.gangs
    .map((number) => `gang/${number}`)
    .filter((gang) => state.members.get(gang)?.has(strip));

/** "Brass, Winds", each in brackets while it is suspended. */
export const useGangNames = (strip: string): string =>
  useShow((state) =>
    gangsOf(state, strip)
      .map((gang) => {
        const name = stripName(state, gang);
        return state.values.get(`${gang}/suspended`) === true ? `(${name})` : name;
      })
      .join(", "),
  );

/** Where a gang would have an address beyond the end of its range; null: nowhere else. */
export const useKept = (address: string): number | null =>
  useShow((state) => {
    const kept = state.values.get(`${address}/kept`);
    return typeof kept === "number" ? kept : null;
  });
