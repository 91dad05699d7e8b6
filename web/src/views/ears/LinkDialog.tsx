import { createPortal } from "react-dom";
import { giveCodes, makeAllLinks, renewLinks } from "../../data/http";
import { notify } from "../../data/show";
import type { EarLink, NewCode, NewLink } from "../../data/types";
import { useShow } from "../../data/use";
import { whenText } from "../../data/words";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";

interface Props {
  open: boolean;
  /** Links that were just made: only now can they be read, since nobody keeps them. */
  made: readonly NewLink[];
  /** Short codes that were just given: told this once as well. */
  codes: readonly NewCode[];
  links: readonly EarLink[];
  /** Mixes for ears and wedges, by their names. */
  mixes: readonly (readonly [mix: string, name: string])[];
  onMade: (made: readonly NewLink[]) => void;
  onCodes: (codes: readonly NewCode[]) => void;
  onClose: () => void;
}

/** Links of performers' phones: who has one, more of them, and those just made, to show or to print. */
export function LinkDialog({ open, made, codes, links, mixes, onMade, onCodes, onClose }: Props) {
  const show = useShow((state) => state.desk!.show.id);
  const standing = links.filter((link) => !link.ended);
  const lacking = mixes.filter(([mix]) => !standing.some((link) => link.mixes.includes(mix)));
  const ids = standing.map((link) => link.id);
  const take = (work: Promise<readonly NewLink[]>) =>
    void work.then(onMade, (error: Error) => notify(error.message));
  if (codes.length > 0) return <Codes codes={codes} open={open} onClose={onClose} />;
  return (
    <Dialog
      title={made.length === 1 ? `Link for ${made[0]!.link.who}` : "Links for phones"}
      about="Whoever opens a link moves that mix and nothing else. A link is shown when it is made and never again: nobody keeps it."
      open={open}
      onOpenChange={onClose}
      wide
    >
      {made.length > 0 ? (
        <>
          <ul
            aria-label="New links"
            tabIndex={0}
            className="scrolls max-h-[60vh] mt-3 flex flex-col gap-3"
          >
            {made.map((one) => (
              <Card key={one.link.id} made={one} />
            ))}
          </ul>
          {createPortal(
            <ul className="print-only link-cards" aria-hidden>
              {made.map((one) => (
                <Card key={one.link.id} made={one} paper />
              ))}
            </ul>,
            document.body,
          )}
        </>
      ) : (
        <p className="mt-3 text-soft break-words">
          {lacking.length === 0
            ? `Every mix has a link: ${standing.map((link) => link.who).join(", ")}.`
            : `Without a link: ${lacking.map(([, name]) => name).join(", ")}.`}
        </p>
      )}
      <div className="flex justify-end gap-2 flex-wrap pt-3">
        {standing.length > 0 && made.length === 0 && (
          <Button
            title="For an hour: they pick their name on the phones' page and type a code"
            onClick={() =>
              void giveCodes(show, ids).then(onCodes, (error: Error) => notify(error.message))
            }
          >
            Short codes
          </Button>
        )}
        {standing.length > 0 && made.length === 0 && (
          <Button
            tone="danger"
            title="Each gets another address; open pages close"
            onClick={() => take(renewLinks(show, ids))}
          >
            Renew all {standing.length}
          </Button>
        )}
        {lacking.length > 0 && made.length === 0 && (
          <Button tone="main" onClick={() => take(makeAllLinks(show))}>
            Make {lacking.length} links
          </Button>
        )}
        {made.length > 0 && (
          <Button tone="main" onClick={() => window.print()}>
            Print them
          </Button>
        )}
        <Button onClick={onClose}>Close</Button>
      </div>
    </Dialog>
  );
}

/** Short codes, to read out or to show: whoever picks their name types theirs. */
function Codes({ codes, open, onClose }: Pick<Props, "codes" | "open" | "onClose">) {
  return (
    <Dialog
      title={codes.length === 1 ? `Short code for ${codes[0]!.who}` : "Short codes"}
      about={`At ${location.host}/mine they pick their name and type the code. Codes stand until ${whenText(codes[0]!.ends_at)}, and are shown this once.`}
      open={open}
      onOpenChange={onClose}
    >
      <ul aria-label="Short codes" tabIndex={0} className="scrolls max-h-[60vh] mt-3">
        {codes.map((one) => (
          <li
            key={one.link}
            className="flex items-baseline gap-4 py-1.5 border-b border-line last:border-0"
          >
            <span dir="auto" className="min-w-0 flex-1 break-words">
              {one.who}
            </span>
            <code data-testid="code" className="text-[24px] tracking-[0.12em] font-bold">
              {one.code.slice(0, 3)} {one.code.slice(3)}
            </code>
          </li>
        ))}
      </ul>
      <div className="flex justify-end gap-2 pt-3">
        <Button onClick={onClose}>Close</Button>
      </div>
    </Dialog>
  );
}

function Card({ made: { link, token, code }, paper }: { made: NewLink; paper?: boolean }) {
  const address = `${location.origin}/mine#${token}`;
  return (
    <li className="link-card flex gap-4 items-center flex-wrap">
      <img
        src={code}
        alt={`QR code of ${link.who}'s link`}
        className="w-40 h-40 rounded-lg bg-white"
      />
      <div className="min-w-0 flex-1">
        <strong dir="auto" className="block">
          {link.who}
        </strong>
        <code className="block break-all text-[13px] py-1" data-testid={paper ? undefined : "link"}>
          {address}
        </code>
        <Button
          small
          className="screen-only"
          onClick={() => void navigator.clipboard?.writeText(address)}
        >
          Copy
        </Button>
      </div>
    </li>
  );
}
