/** DCAs and mute groups: what differs between them in words and addresses. */

export type Kind = "dca" | "mute_group";

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
} as const;

export const numberOf = (ruler: string): number => Number(ruler.split("/")[1]);
