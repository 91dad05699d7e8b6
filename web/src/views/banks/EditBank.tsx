import { store } from "../../data/show";
import { stripName, useLink, useShow } from "../../data/use";
import { Button } from "../../ui/Button";
import { NamesForm } from "../../ui/NamesForm";
import { TypedField } from "../../ui/TypedField";
import { listText } from "./listText";

/** Banks named in one go; the strips of the one that is called, and what is fixed, as typed. */
export function EditBank({
  bay,
  bank,
  onMade,
}: {
  bay: number;
  bank: number;
  onMade: (bank: number) => void;
}) {
  const link = useLink();
  const banks = useShow((state) => state.banks);
  const name = useShow((state) => stripName(state, `bank/${bank}`));
  const exists = banks.includes(bank);
  const strips = useShow((state) => listText(state, `bank/${bank}/${bay}`));
  const fixed = useShow((state) => listText(state, `bay/${bay}/fixed`));
  const make = async (names: string[]) => {
    const kept = await link.do({ action: "make_banks", names }, { quiet: false });
    const made = store.getState().banks.find((one) => !banks.includes(one));
    if (made !== undefined) onMade(made);
    return kept;
  };
  return (
    <div className="flex items-center gap-x-3 gap-y-2 flex-wrap pb-2 shrink-0 text-[13px] text-faint">
      <NamesForm label="Names of new banks" placeholder="Voices, Band, Foley" onMake={make} />
      {exists && (
        <>
          <span className="flex items-center gap-1.5">
            Name
            <TypedField
              boxed
              label="Name of the bank"
              value={name}
              className="w-32 h-8 text-paper"
              onCommit={(typed) => void link.type(`bank/${bank}/name`, typed)}
            />
          </span>
          <span className="flex items-center gap-1.5">
            Strips
            <TypedField
              boxed
              label="Strips of the bank"
              value={strips}
              placeholder="7-12, dca 1-4"
              className="w-56 h-8 text-paper"
              onCommit={(typed) =>
                void link.do({ action: "fill_bay", bank, bay, strips: typed }, { quiet: false })
              }
            />
          </span>
          <Button
            small
            tone="danger"
            onClick={() => void link.do({ action: "clear_bank", bank }, { quiet: false })}
          >
            Remove
          </Button>
        </>
      )}
      <span className="flex items-center gap-1.5">
        Always here, at the right of every bank
        <TypedField
          boxed
          label="Strips that are always on this side"
          value={fixed}
          placeholder="dca 1, house"
          className="w-40 h-8 text-paper"
          onCommit={(typed) =>
            void link.do({ action: "fix_strips", bay, strips: typed }, { quiet: false })
          }
        />
      </span>
    </div>
  );
}
