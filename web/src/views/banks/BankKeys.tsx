import { stripName, useShow } from "../../data/use";
import { InRow, useRows, useTabIndex } from "../../ui/reach";
import { type BayView, calling } from "./surface";

/** The keys that call the banks on a side. */
export function BankKeys({ view, onView }: { view: BayView; onView: (view: BayView) => void }) {
  const banks = useShow((state) => state.banks);
  const rows = useRows(
    banks.map((bank) => `${bank}`),
    { across: true },
  );
  return (
    <span
      className="flex items-center gap-1.5 flex-wrap phone:flex-nowrap"
      role="group"
      aria-label="Banks"
      {...rows.hand}
    >
      {banks.map((bank, index) => (
        <InRow key={bank} of={`${bank}`} rows={rows}>
          <BankKey
            bank={bank}
            turn={index + 1}
            called={bank === view.bank}
            onCall={() => onView(calling(bank))}
          />
        </InRow>
      ))}
    </span>
  );
}

function BankKey({
  bank,
  turn,
  called,
  onCall,
}: {
  bank: number;
  turn: number;
  called: boolean;
  onCall: () => void;
}) {
  const name = useShow((state) => stripName(state, `bank/${bank}`));
  return (
    <button
      type="button"
      data-row={bank}
      tabIndex={useTabIndex()}
      aria-pressed={called}
      onClick={onCall}
      className={`h-9 coarse:h-11 px-3 rounded-xl border cursor-pointer max-w-44 shrink-0 flex items-center ${called ? "border-sun bg-raise font-semibold" : "border-line bg-card text-soft hover:text-paper"}`}
    >
      {turn <= 9 && <span className="text-faint text-[12px] mr-1.5">{turn}</span>}
      <span dir="auto" className="truncate">
        {name}
      </span>
    </button>
  );
}
