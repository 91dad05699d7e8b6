import { valueIn } from "../../data/show";
import { select, stripName, useShow } from "../../data/use";
import { levelText } from "../../data/words";

/**
 * Over the table: who is loudest at the listener of Why, and where Why's own source stands among them.
 * It keeps its place while the answer for another listener is on its way: the table never jumps.
 */
export function LoudestLine() {
  const loudest = useShow((state) => state.loudest);
  const selected = useShow((state) => state.selected);
  const name = useShow((state) => (selected ? stripName(state, selected.listener) : ""));
  const down = useShow(
    (state) =>
      state.channels.length > 0 &&
      state.channels.every((n) => valueIn(state, `channel/${n}/fader`) === null),
  );
  const told = loudest && loudest.listener === selected?.listener ? loudest : null;
  return (
    <div
      role="group"
      className="flex items-center gap-x-1.5 text-[13px] h-9 coarse:h-[52px] pb-1.5 coarse:pt-0.5 shrink-0 overflow-hidden"
      aria-label={`Loudest at ${name}`}
    >
      <span dir="auto" className="text-faint whitespace-nowrap max-w-56 truncate slim:sr-only">
        Loudest at {name}
      </span>
      {told?.sources.length === 0 && (
        <span className="text-soft">
          nobody is heard
          {down &&
            ": every fader is off, as after an import. Bring them up on Banks, or type here."}
        </span>
      )}
      {told?.sources.map((one) => (
        <button
          key={one.source}
          type="button"
          title={one.name}
          aria-current={one.source === selected?.source ? "true" : undefined}
          onClick={() => select(one.source, told.listener)}
          className={`inline-flex items-center gap-1.5 h-7 px-2 rounded-lg border cursor-pointer whitespace-nowrap min-w-0 max-w-40 ${
            one.source === selected?.source
              ? "border-sun text-paper font-semibold"
              : "border-line text-soft hover:text-paper"
          }`}
        >
          <span className="text-faint">{one.rank}</span>
          <span dir="auto" className="truncate">
            {one.name}
          </span>
          <span>{levelText(one.level_db)}</span>
        </button>
      ))}
    </div>
  );
}
