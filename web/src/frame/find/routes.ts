/** Where an answer leads: the view's address, and what is selected on the way. */
import { isOf, kindOf, numberOf } from "../../data/address";
import type { FoundAnswer } from "../../data/types";
import { select } from "../../data/use";
import { pageOf } from "../../views/mixes/addresses";

type Place = Pick<FoundAnswer, "view" | "at" | "beside">;

/** Go to where an answer leads. */
export function goTo({ view, at, beside }: Place, navigate: (to: string) => void): void {
  if (view === "hears" && at) select(at, beside || undefined);
  if (view === "mixes" && at) isOf(at, "return") ? select(at) : select(null, at);
  if (view === "strip" && at && beside) sessionStorage.setItem("stage", beside);
  navigate(pathOf({ view, at, beside }));
}

/** The address of a view, with what of it is meant. */
export function pathOf({ view, at, beside }: Place): string {
  if (!at) return beside ? `/${view}?at=${encodeURIComponent(beside)}` : `/${view}`;
  switch (view) {
    case "mixes":
      return `/mixes/${pageOf(at)}`;
    case "strip":
      return `/strip/${at}`;
    case "banks":
      return beside ? `/banks?hand=${beside}` : `/banks?bank=${numberOf(at)}`;
    case "lines":
      return `/lines?line=${numberOf(at)}`;
    case "tracks":
      return "/tracks/back";
    case "wrong":
      return "/wrong/promises";
    case "dcas":
    case "mutes":
    case "gangs":
    case "scenes":
      return `/${view}/${numberOf(at)}`;
    default:
      return `/${view}`;
  }
}

/** Whether the hand goes to the gain of a channel that is looked at. */
export const takesGain = ({ view, at, beside }: Place): boolean =>
  view === "hears" && kindOf(at) === "channel" && !beside;
