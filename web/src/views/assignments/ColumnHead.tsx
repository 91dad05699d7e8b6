import { thingOf } from "../../data/address";
import { colourOf } from "../../data/show";
import { stripName, useShow } from "../../data/use";
import { useTabIndex } from "../../ui/reach";

export const WIDTH = 46;

const WORDS: Readonly<Record<string, string>> = {
  group: "grp",
  mix: "mix",
  matrix: "mtx",
  dca: "DCA",
  mute_group: "mute",
  gang: "gang",
};

interface Props {
  column: string;
  /** Only the strips in it are shown. */
  chosen: boolean;
  onChoose: () => void;
}

/** Head of a column, its name from below upwards; pressed, only the strips in it are shown. */
export function ColumnHead({ column, chosen, onChoose }: Props) {
  const thing = column.replace("send/", "");
  const name = useShow((state) => stripName(state, thing));
  const colour = useShow((state) => colourOf(state, thing, "sea"));
  const { kind, number } = thingOf(thing);
  const word = number ? `${WORDS[kind] ?? kind} ${number}` : "";
  return (
    <div
      role="columnheader"
      data-row={column}
      className={`shrink-0 border-r border-ink ${chosen ? "bg-raise" : ""}`}
      style={{ width: WIDTH, borderTop: `4px solid var(--strip-${colour})` }}
    >
      <button
        type="button"
        tabIndex={useTabIndex()}
        aria-pressed={chosen}
        aria-label={`${name} ${word}: only its strips`}
        title={name}
        onClick={onChoose}
        className="w-full h-full flex flex-col items-center justify-end gap-1 pb-1 cursor-pointer hover:bg-card"
      >
        <span
          dir="auto"
          className="flex-1 min-h-0 pt-1 text-[13px] leading-tight font-semibold overflow-hidden text-ellipsis whitespace-nowrap rotate-180 [writing-mode:vertical-rl]"
        >
          {name}
        </span>{" "}
        <span className="text-faint text-[11px] leading-none whitespace-nowrap">{word}</span>
      </button>
    </div>
  );
}
