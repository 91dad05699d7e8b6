import { useShow } from "../data/use";
import { whenText } from "../data/words";
import { Dialog } from "../ui/Dialog";

interface Props {
  open: boolean;
  onOpenChange: (open: boolean) => void;
}

/** Everything that was told here since the page was opened, the newest first. */
export function NoticesDialog({ open, onOpenChange }: Props) {
  const told = useShow((state) => state.told);
  return (
    <Dialog title="Notices" open={open} onOpenChange={onOpenChange}>
      {told.length === 0 ? (
        <p className="mt-3 text-soft">
          Nothing was told yet. What is done by a press, and what is refused, is listed here.
        </p>
      ) : (
        <ol className="mt-3 flex flex-col" aria-label="All notices">
          {told.toReversed().map((one) => (
            <li key={one.id} className="flex gap-3 py-1.5 border-t border-line first:border-t-0">
              <time className="text-faint whitespace-nowrap">
                {whenText(new Date(one.at).toISOString())}
              </time>
              <span className="min-w-0 break-words">
                {one.tone === "refused" && <strong className="text-coral mr-1.5">Not done.</strong>}
                {one.text}
              </span>
            </li>
          ))}
        </ol>
      )}
    </Dialog>
  );
}
