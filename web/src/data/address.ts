/** Addresses and names of things, taken apart in this one place; see "Words" in docs/glossary.md. */
import kinds from "./generated/kinds.json";

/** What a kind of strip is and can, as the core has it. */
export interface StripKind {
  key: string;
  alone: boolean;
  /** null: as many as its format says. */
  sides: number | null;
  /** The kinds of bus that it may feed, and how. */
  feeds: Readonly<Record<string, string>>;
  source: boolean;
  pairs: boolean;
  gate: boolean;
  crossed: boolean;
  public: boolean;
  /** Leaves of which any that is set puts it in use. */
  used_by: readonly string[];
}

/** In the order of a desk's strips. */
export const STRIP_KINDS: readonly StripKind[] = kinds.strips as unknown as readonly StripKind[];
const BY_KEY = new Map(STRIP_KINDS.map((kind) => [kind.key, kind]));
const LONE = new Set(kinds.lone);

/** What stands in a name such as "mix/5/left", "input/a/7" or "house", or before an address's leaf. */
export interface Thing {
  /** Without a side: "mix/5". */
  readonly thing: string;
  readonly kind: string;
  /** From 1; 0 where a desk has one. */
  readonly number: number;
  /** Of a socket: the key of its box. */
  readonly box: string;
  /** What is left behind it: a side of a name, the leaf of an address. */
  readonly leaf: string;
}

/** Any text may be asked for: one that names nothing has a kind that nobody knows. */
export function thingOf(text: string): Thing {
  const words = text.split("/");
  const kind = words[0]!;
  const at = kind === "input" || kind === "output";
  const length = at ? 3 : LONE.has(kind) ? 1 : 2;
  return {
    thing: words.slice(0, length).join("/"),
    kind,
    number: length === 1 ? 0 : Number(words[length - 1] ?? 0),
    box: at ? (words[1] ?? "") : "",
    leaf: words.slice(length).join("/"),
  };
}

export const kindOf = (text: string): string => thingOf(text).kind;
export const numberOf = (text: string): number => thingOf(text).number;

/** Whether a text names, or is an address of, a thing of one of some kinds; null names nothing. */
export function isOf(text: string, ...kinds: readonly string[]): boolean;
export function isOf(text: unknown, ...kinds: readonly string[]): text is string;
export function isOf(text: unknown, ...kinds: readonly string[]): boolean {
  return typeof text === "string" && kinds.includes(kindOf(text));
}

/** What its kind can; undefined for what is no strip. */
export const stripKind = (text: string): StripKind | undefined => BY_KEY.get(kindOf(text));

/** The leaves that put a strip in use. */
export const usedBy = (text: string): readonly string[] => stripKind(text)?.used_by ?? [];

/** Whether it stands among the rows of who hears what. */
export const isSource = (text: string): boolean => stripKind(text)?.source === true;

/** Whether mixes can be sent it: what promises and lifts take as sources. */
export const isSender = (text: string): boolean => stripKind(text)?.feeds.mix === "send";

/** Whether it has a pan of its own: it goes to the house. */
export const isPanned = (text: string): boolean => stripKind(text)?.feeds.house !== undefined;

/** Whether it is a bus, or a side of one. */
export const isBus = (text: string): boolean => stripKind(text)?.source === false;

/** Another address of the same stem: the switch of a level. */
export const beside = (address: string, leaf: string): string =>
  `${address.slice(0, address.lastIndexOf("/"))}/${leaf}`;

/** The thing above it: the even one of a pair, the next socket of a box. */
export function above(text: string): string {
  const { kind, number, box } = thingOf(text);
  return box ? `${kind}/${box}/${number + 1}` : `${kind}/${number + 1}`;
}

/** The last word of an address. */
export const lastOf = (address: string): string => address.slice(address.lastIndexOf("/") + 1);

/** The other thing that an address names: the mix of a send, the DCA of a membership; "" for none. */
export function targetOf(address: string): string {
  const words = thingOf(address).leaf.split("/");
  for (let at = words.length - 2; at >= 0; at--)
    if (/^[1-9]\d*$/.test(words[at + 1]!) && /^[a-z_]+$/.test(words[at]!) && !OWN.has(words[at]!))
      return `${words[at]}/${words[at + 1]}`;
  return words.length > 1 && LONE.has(words[0]!) ? words[0]! : "";
}

// numbers behind these count what a strip has itself: the bands of its equaliser
const OWN = new Set(["eq"]);

/** "channel 7", as people type and read it. */
export const inWords = (strip: string): string => {
  const { kind, number } = thingOf(strip);
  return number ? `${kind} ${number}` : kind;
};

/** A thing and what of it, as the cell of a table is named: the last word is what. */
export function holderOf(cell: string): readonly [string, string] {
  const at = cell.lastIndexOf("/");
  return [cell.slice(0, at), cell.slice(at + 1)];
}
