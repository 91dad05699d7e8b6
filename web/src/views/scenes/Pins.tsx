import { useSetByHand } from "../../data/hand";
import { useParameter, useShow } from "../../data/use";
import { Choice } from "../../ui/Choice";
import { OwnWord } from "../../ui/OwnWord";
import { PinKey } from "../../ui/PinKey";
import { InRow, useRows } from "../../ui/reach";

/** Every pin that is set, to be freed by one press; and whole families of lines to be held. */
export function Pins() {
  const set = useSetByHand();
  const pins = useShow((state) => state.scenes?.pins ?? null);
  const families = useParameter("line/1/family").options ?? [];
  const rows = useRows((pins ?? []).map(([address]) => address));
  if (pins === null) return null;
  return (
    <section aria-label="Pins" className="shrink-0 pt-2 max-h-44 scrolls" tabIndex={0}>
      <div className="flex items-center gap-2 pb-1">
        <h2 className="text-soft flex-1">
          <OwnWord word="Pin">Pinned</OwnWord>{" "}
          <span className="text-faint">{pins.length || "nothing"}</span>
        </h2>
        <Choice
          boxed
          label="Pin all of a family"
          value=""
          options={[["", "a family…"], ...families.map((one) => [one, one] as const)]}
          className="coarse:h-11"
          onChange={(family) => family && set(`show/pinned_${family}`, "on")}
        />
      </div>
      <ul {...rows.hand} className="flex flex-col">
        {pins.map(([address, says]) => (
          <InRow key={address} of={address} rows={rows}>
            <li data-row={address} className="flex items-center gap-2 min-h-8">
              <span className="flex-1 min-w-0 truncate">{says}</span>
              <PinKey address={address} of={says} />
            </li>
          </InRow>
        ))}
      </ul>
    </section>
  );
}
