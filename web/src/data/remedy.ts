/** One of Ombrel's own ways out, taken: what else it would move far is shown first. */
import type { Link } from "./link";
import type { Remedy } from "./types";

export const takeRemedy = (link: Link, { moves, says }: Remedy): Promise<boolean> =>
  link.do({ action: "moves", moves, says: says.slice(0, 120), remedy: true }, { quiet: false });
