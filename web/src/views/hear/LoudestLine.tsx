import { select, stripName, useShow } from "../../data/use";
import { levelText } from "../../data/words";

/** Over the table: who is loudest at the listener of Why, and where Why's own source stands among them. */
export function LoudestLine() {
  const loudest = useShow((state) => state.loudest);
  const selected = useShow((state) => state.selected);
  const name = useShow((state) => (loudest ? stripName(state, loudest.listener) : ""));
  if (!loudest || loudest.listener !== selected?.listener) return null;
  return (
    <p className="flex items-center gap-x-1.5 gap-y-1 narrow:flex-wrap text-[13px] pb-1.5 shrink-0" aria-label={`Loudest at ${name}`}>
      <span className="text-faint whitespace-nowrap">Loudest at {name}</span>
      {loudest.sources.length === 0 && <span className="text-soft">nobody is heard</span>}
      {loudest.sources.map((one) => (
        <button
          key={one.source}
          type="button"
          aria-current={one.source === selected.source ? "true" : undefined}
          onClick={() => select(one.source, loudest.listener)}
          className={`inline-flex items-center gap-1.5 h-7 px-2 rounded-lg border cursor-pointer whitespace-nowrap min-w-0 max-w-40 ${
            one.source === selected.source ? "border-sun text-paper font-semibold" : "border-line text-soft hover:text-paper"
          }`}
        >
          <span className="text-faint">{one.rank}</span>
          <span className="truncate">{one.name}</span>
          <span>{levelText(one.level_db)}</span>
        </button>
      ))}
    </p>
  );
}
