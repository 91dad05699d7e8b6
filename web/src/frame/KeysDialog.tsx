import { Link as RouteLink } from "wouter";
import { Dialog } from "../ui/Dialog";
import { ABOUT } from "./about";
import { KEYS, type KeyWord } from "./keys";
import { OwnWords } from "./OwnWords";
import { VIEW_WORD } from "./places";

/** The keys of the view one is in, and those that work everywhere. */
export function KeysDialog({
  open,
  onOpenChange,
  view,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  view: string;
}) {
  return (
    <Dialog title="Keys" open={open} onOpenChange={onOpenChange}>
      {ABOUT[view] && <p className="mt-3 leading-relaxed">{ABOUT[view].says}</p>}
      <OwnWords of={ABOUT[view]?.words} />
      {KEYS[view] && <Section title={VIEW_WORD[view] ?? view} keys={KEYS[view]} />}
      <Section title="Everywhere" keys={KEYS.everywhere!} />
      <RouteLink
        to={`/guide?view=${view}`}
        className="mt-4 h-9 inline-flex items-center text-sun-text underline"
        onClick={() => onOpenChange(false)}
      >
        Open the guide here
      </RouteLink>
    </Dialog>
  );
}

function Section({ title, keys }: { title: string; keys: readonly KeyWord[] }) {
  return (
    <section className="mt-3">
      <h3 className="text-soft pb-1">{title}</h3>
      <dl className="grid grid-cols-[max-content_minmax(0,1fr)] gap-x-4 gap-y-1">
        {keys.map(({ word, does }) => (
          <div key={word} className="contents">
            <dt className="font-semibold">{word}</dt>
            <dd className="text-soft">{does}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
