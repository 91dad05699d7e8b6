import { stripName, useShow } from "../../data/use";
import { Button } from "../../ui/Button";
import { useLying } from "./lying";
import { type BayView, folded } from "./surface";

interface Props {
  number: number;
  faders: number;
  view: BayView;
  onView: (view: BayView) => void;
}

/** What is unfolded on a side and the way back, and which page it shows: above the faders, which do not move for it. */
export function BayTrail({ number, faders, view, onView }: Props) {
  const { trail, page, pages } = useLying(number, faders, view);
  const names = useShow((state) => trail.map((one) => stripName(state, one.thing)).join(" › "));
  if (!names && pages === 1) return null;
  return (
    <span className="flex items-center gap-2 text-soft min-w-0">
      {names && (
        <>
          <span dir="auto" className="text-sun-text font-semibold truncate">
            {names}
          </span>
          <Button
            small
            tone="main"
            title="Escape"
            onClick={() => onView(folded({ ...view, unfolded: trail }))}
          >
            Back
          </Button>
        </>
      )}
      {pages > 1 && (
        <Button
          small
          onClick={() => {
            const next = (page + 1) % pages;
            onView(names ? { ...view, inner: next } : { ...view, page: next });
          }}
        >
          Page {page + 1} of {pages}
        </Button>
      )}
    </span>
  );
}
