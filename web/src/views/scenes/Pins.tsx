import { useShow } from "../../data/use";
import { PinKey } from "../../ui/PinKey";

/** Every pin that is set, to be freed by one press. */
export function Pins() {
  const pins = useShow((state) => state.scenes?.pins ?? null);
  if (pins === null || pins.length === 0) return null;
  return (
    <section aria-label="Pins" className="shrink-0 pt-2 max-h-44 scrolls" tabIndex={0}>
      <h2 className="text-soft pb-1">
        Pinned against recalls <span className="text-faint">{pins.length}</span>
      </h2>
      <ul className="flex flex-col">
        {pins.map(([address, says]) => (
          <li key={address} className="flex items-center gap-2 min-h-8">
            <span className="flex-1 min-w-0 truncate">{says}</span>
            <PinKey address={address} of={says} />
          </li>
        ))}
      </ul>
    </section>
  );
}
