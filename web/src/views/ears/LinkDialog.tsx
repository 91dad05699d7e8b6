import type { NewLink } from "../../data/types";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";

interface Props {
  made: readonly NewLink[];
  onClose: () => void;
}

/** Links that were just made: only now can they be read, since nobody keeps them. */
export function LinkDialog({ made, onClose }: Props) {
  return (
    <Dialog
      title={made.length === 1 ? `Link for ${made[0]!.link.who}` : "Links"}
      about="Whoever opens it moves this mix and nothing else. It is shown this once: nobody keeps it, and Renew makes another."
      open={made.length > 0}
      onOpenChange={onClose}
      wide
    >
      <ul
        aria-label="New links"
        tabIndex={0}
        className="scrolls max-h-[60vh] mt-3 flex flex-col gap-3"
      >
        {made.map(({ link, token, code }) => (
          <li key={link.id} className="flex gap-4 items-center flex-wrap">
            <img
              src={code}
              alt={`QR code of ${link.who}'s link`}
              className="w-40 h-40 rounded-lg bg-white"
            />
            <div className="min-w-0 flex-1">
              <strong dir="auto" className="block">
                {link.who}
              </strong>
              <code className="block break-all text-[13px] py-1" data-testid="link">
                {addressOf(token)}
              </code>
              <Button small onClick={() => void navigator.clipboard?.writeText(addressOf(token))}>
                Copy
              </Button>
            </div>
          </li>
        ))}
      </ul>
    </Dialog>
  );
}

const addressOf = (token: string): string => `${location.origin}/mine#${token}`;
