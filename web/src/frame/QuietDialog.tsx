import { store, valueIn } from "../data/show";
import { useLink, useShow } from "../data/use";
import { Dialog } from "../ui/Dialog";
import { isTyping } from "../ui/keys";
import { MuteGroupKeys } from "../ui/MuteGroupKeys";
import { actOf } from "./keys";

const ALL = [
  ["ears", "All ears", "E"],
  ["inputs", "All inputs", "I"],
] as const;
type What = (typeof ALL)[number][0];

/** Whether the group of all ears, or of all inputs, is closed. */
const isShut = (state: ReturnType<typeof store.getState>, what: What): boolean =>
  state.mute_groups
    .map((number) => `mute_group/${number}`)
    .some(
      (group) =>
        valueIn(state, `${group}/takes`) === what &&
        valueIn(state, `${group}/hard`) === true &&
        valueIn(state, `${group}/on`) === true,
    );

interface Props {
  open: boolean;
  onOpenChange: (open: boolean) => void;
}

/** From anywhere, by two keys: all ears or all inputs muted, or opened; and every other mute group. */
export function QuietDialog({ open, onOpenChange }: Props) {
  const link = useLink();
  const turn = (what: What) => {
    const on = !isShut(store.getState(), what);
    void link.do({ action: "mute_all", what, on }, { quiet: false });
    onOpenChange(false);
  };
  return (
    <Dialog
      title="Quiet"
      about="Two presses from anywhere."
      open={open}
      onOpenChange={onOpenChange}
    >
      <div
        onKeyDown={(event) => {
          const act = isTyping(event.nativeEvent) ? null : actOf("quiet", event);
          if (act !== "ears" && act !== "inputs") return;
          event.preventDefault();
          turn(act);
        }}
      >
        <div className="grid grid-cols-2 gap-2 pt-3">
          {ALL.map(([what, word, letter]) => (
            <AllKey key={what} what={what} word={word} letter={letter} onTurn={() => turn(what)} />
          ))}
        </div>
        <MuteGroupKeys className="grid grid-cols-2 gap-1.5 pt-4" />
      </div>
    </Dialog>
  );
}

interface KeyProps {
  what: What;
  word: string;
  letter: string;
  onTurn: () => void;
}

function AllKey({ what, word, letter, onTurn }: KeyProps) {
  const shut = useShow((state) => isShut(state, what));
  return (
    <button
      type="button"
      aria-pressed={shut}
      onClick={onTurn}
      className={`min-h-20 rounded-2xl border-2 text-[18px] font-semibold cursor-pointer flex flex-col items-center justify-center ${shut ? "border-coral bg-blocked text-coral" : "border-edge bg-card hover:bg-raise"}`}
    >
      {word}
      <span className="text-[13px] font-normal text-soft">
        {shut ? "muted: open" : "mute"}
        <kbd className="font-sans font-semibold border border-edge rounded-md px-1.5 ml-2 coarse:hidden">
          {letter}
        </kbd>
      </span>
    </button>
  );
}
