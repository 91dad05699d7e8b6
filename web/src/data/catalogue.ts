/** The catalogue as it came over the wire, looked up by address. */
import type { Desk, Parameter, Value } from "./types";

// few keys share their first word, how many words they have, and their last ("": any number)
const shapeOf = (words: readonly string[], last: string) => `${words[0]}/${words.length}/${last}`;

export class Catalogue {
  readonly #byShape = new Map<string, { words: string[]; parameter: Parameter }[]>();
  readonly #found = new Map<string, Parameter>();

  constructor(desk: Desk) {
    for (const parameter of desk.parameters) {
      const words = parameter.key.split("/");
      const shape = shapeOf(words, words.at(-1)!.startsWith("<") ? "" : words.at(-1)!);
      this.#byShape.set(shape, [...(this.#byShape.get(shape) ?? []), { words, parameter }]);
    }
  }

  /** The entry for an address. Throws for one that the catalogue does not know. */
  at(address: string): Parameter {
    const found = this.#find(address);
    if (!found) throw new Error(`the catalogue has no ${address}`);
    return found;
  }

  /** Whether there is such an address: whether a strip can be sent to a mix, say. */
  has(address: string): boolean {
    return this.#find(address) !== null;
  }

  #find(address: string): Parameter | null {
    const known = this.#found.get(address);
    if (known) return known;
    const words = address.split("/");
    const candidates = [
      ...(this.#byShape.get(shapeOf(words, words.at(-1)!)) ?? []),
      ...(this.#byShape.get(shapeOf(words, "")) ?? []),
    ];
    const match = candidates.find((candidate) =>
      candidate.words.every((word, index) => word.startsWith("<") || word === words[index]),
    );
    if (!match) return null;
    this.#found.set(address, match.parameter);
    return match.parameter;
  }

  /** What an address holds when nobody has set it. */
  defaultOf(address: string): Value {
    return this.at(address).default;
  }
}
