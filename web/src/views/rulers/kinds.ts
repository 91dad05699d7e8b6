/** DCAs, mute groups and gangs: what differs between them in words and addresses. */

import { thingOf } from "../../data/address";
import { runs } from "../../ui/ranges";

export type Kind = "dca" | "mute_group" | "gang";

export const KIND = {
  dca: {
    view: "dcas",
    title: "DCAs",
    all: "All DCAs",
    one: "DCA",
    first: "Name a set of DCAs in one go, then fill them: by painting, by typing, by family.",
    example: "Band, Bass, Voices, Tracks",
  },
  mute_group: {
    view: "mutes",
    title: "Mute groups",
    all: "All mute groups",
    one: "Mute group",
    first: "A mute group silences all its members with one key, and you see for whom beforehand.",
    example: "Tellers, Band, Foley",
  },
  gang: {
    view: "gangs",
    title: "Gangs",
    all: "All gangs",
    one: "Gang",
    first:
      "The strips of a gang move together and keep their distances: name some, then fill them.",
    example: "Toms, Brass, Strings",
  },
} as const;

/** What the lists of the show call those in use. */
export const LISTED = { dca: "dcas", mute_group: "mute_groups", gang: "gangs" } as const;

const ORDER = ["channel", "return", "group", "mix", "house", "mono", "matrix", "dca"];

/** Members in the order of the desk, DCAs last. */
export function inOrder(members: ReadonlySet<string>): string[] {
  const place = (strip: string) => {
    const { kind, number } = thingOf(strip);
    return ORDER.indexOf(kind) * 1000 + number;
  };
  return [...members].sort((a, b) => place(a) - place(b));
}

/** Members as they can be typed again: "1-8, mix 1-4, house". */
export function stripsText(members: Iterable<string>): string {
  const parts = new Map<string, number[]>();
  for (const member of members) {
    const { kind, number } = thingOf(member);
    const numbers = parts.get(kind) ?? [];
    if (number) numbers.push(number);
    parts.set(kind, numbers);
  }
  return ORDER.filter((kind) => parts.has(kind))
    .map((kind) => {
      const numbers = parts.get(kind)!.sort((a, b) => a - b);
      if (numbers.length === 0) return kind;
      return kind === "channel" ? runs(numbers) : `${kind} ${runs(numbers)}`;
    })
    .join(", ");
}
