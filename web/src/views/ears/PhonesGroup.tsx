import { endLinks, giveCodes, makeLink, renewLinks, turnPhone } from "../../data/http";
import { notify } from "../../data/show";
import type { EarLink, NewCode, NewLink, EarRow as Row } from "../../data/types";
import { useShow } from "../../data/use";
import { whenText } from "../../data/words";
import { Button } from "../../ui/Button";
import { Toolbar } from "../../ui/Toolbar";
import { Group } from "./Group";

interface Props {
  row: Row;
  /** All links of the show, and how they came to be others. */
  links: readonly EarLink[];
  onLinks: (made: readonly NewLink[]) => void;
  onCodes: (codes: readonly NewCode[]) => void;
}

/** The links by which phones open it; a token is told once, when it is made. */
export function PhonesGroup({ row, links, onLinks, onCodes }: Props) {
  const own = links.filter((one) => one.mixes.includes(row.mix) && !one.ended);
  const ids = own.map((one) => one.id);
  const id = useShow((state) => state.desk!.show.id);
  // of several links the one whose phone moved something last
  const moved = own.reduce<EarLink | null>(
    (last, one) => (one.moved_at && (last?.moved_at ?? "") < one.moved_at ? one : last),
    null,
  );
  const turn = (link: string, way: "undo" | "redo") =>
    void told(
      turnPhone(id, link, way).then(({ says }) => {
        notify(says);
        onLinks([]);
      }),
    );
  return (
    <Group title="Phones">
      <Toolbar
        label={`Phones of ${row.name}`}
        className="gap-1.5"
        tools={{
          make: (
            <Button
              small
              className="coarse:h-11"
              onClick={() => void told(makeLink(id, [row.mix]).then((one) => onLinks([one])))}
            >
              New link…
            </Button>
          ),
          code: own.length > 0 && (
            <Button
              small
              className="coarse:h-11"
              title="A code for an hour: they pick their name on the phones' page and type it"
              onClick={() => void told(giveCodes(id, ids).then(onCodes))}
            >
              Short code…
            </Button>
          ),
          undo: moved && (
            <Button
              small
              className="coarse:h-11"
              title="Turn back what a phone of it moved last, and nothing else"
              onClick={() => turn(moved.id, "undo")}
            >
              Take back their last move
            </Button>
          ),
          redo: moved && (
            <Button
              small
              className="coarse:h-11"
              title="What was taken back of their moves stands again"
              onClick={() => turn(moved.id, "redo")}
            >
              Give it back
            </Button>
          ),
          renew: own.length > 0 && (
            <Button
              small
              className="coarse:h-11"
              title="Another link for each: the old ones end, and open pages close"
              onClick={() => void told(renewLinks(id, ids).then(onLinks))}
            >
              Renew
            </Button>
          ),
          end: own.length > 0 && (
            <Button
              small
              tone="danger"
              className="coarse:h-11"
              title="Open pages close at once"
              onClick={() => void told(endLinks(id, ids).then(() => onLinks([])))}
            >
              End {own.length === 1 ? "it" : `all ${own.length}`}
            </Button>
          ),
        }}
      />
      <p className="basis-full text-[13px] text-soft break-words">
        {own.length === 0
          ? "No link yet: a link lets a phone move this mix and nothing else."
          : own
              .map(
                (one) =>
                  `${one.who}: ${one.open > 0 ? "open now" : one.phones > 0 ? "was open" : "not opened yet"}${
                    one.moved_at ? `, moved last ${whenText(one.moved_at)}` : ""
                  }`,
              )
              .join("; ")}
      </p>
    </Group>
  );
}

/** What went wrong is told as all else is. */
const told = (work: Promise<unknown>): Promise<unknown> =>
  work.catch((error: Error) => notify(error.message));
