import { useState } from "react";
import { store } from "../../data/show";
import { useLink } from "../../data/use";
import { SERVES_WORD } from "../../data/words";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Dialog } from "../../ui/Dialog";

interface Props {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  onMade: (number: number) => void;
}

/** Make mixes, one for each name, in one step. */
export function NewMixDialog(props: Props) {
  return (
    <Dialog
      title="New mixes"
      about="One for each name: several names, separated by commas or lines, make several mixes."
      open={props.open}
      onOpenChange={props.onOpenChange}
    >
      {props.open && <Form {...props} />}
    </Dialog>
  );
}

function Form({ onOpenChange, onMade }: Props) {
  const link = useLink();
  const [names, setNames] = useState("");
  const [format, setFormat] = useState("stereo");
  const [serves, setServes] = useState("ears");
  const [channels, setChannels] = useState("");
  const [level, setLevel] = useState("-12");
  const [patch, setPatch] = useState(true);
  const list = names.split(/[\n,;]/).map((name) => name.trim()).filter(Boolean);
  const field = "h-9 px-2.5 rounded-lg border border-edge bg-card placeholder:text-faint min-w-0";
  const make = async () => {
    const before = new Set(store.getState().mixes);
    const kept = await link.do(
      {
        action: "make_mixes",
        names: list,
        stereo: format === "stereo",
        serves,
        channels,
        level: channels.trim() ? level : "off",
        patch,
      },
      { quiet: false },
    );
    if (!kept) return;
    onOpenChange(false);
    const made = store.getState().mixes.find((number) => !before.has(number));
    if (made) onMade(made);
  };
  return (
    <form
      className="mt-4 flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void make();
      }}
    >
      <textarea
        autoFocus
        aria-label="Names"
        rows={3}
        placeholder="Ears fiddle, Ears bass, Ears drums"
        className={`${field} h-auto py-2`}
        value={names}
        onChange={(event) => setNames(event.currentTarget.value)}
        onKeyDown={(event) => {
          if (event.key === "Enter" && !event.shiftKey) {
            event.preventDefault();
            if (list.length) void make();
          }
        }}
      />
      <div className="flex gap-2">
        <Choice boxed label="Stereo or mono" value={format} options={[["stereo", "stereo"], ["mono", "mono"]]} onChange={setFormat} className="h-9 flex-1" />
        <Choice boxed label="Serves" value={serves} options={Object.entries(SERVES_WORD)} onChange={setServes} className="h-9 flex-1" />
      </div>
      <div className="flex items-center gap-2">
        <span className="text-soft w-20">Channels</span>
        <input aria-label="Channels to send" placeholder="none, or 1-24" className={`${field} flex-1`} value={channels} onChange={(event) => setChannels(event.currentTarget.value)} />
        <span className="text-soft">at</span>
        <input aria-label="Level of the sends" className={`${field} w-20 text-right`} value={level} onChange={(event) => setLevel(event.currentTarget.value)} disabled={!channels.trim()} />
        <span className="text-soft">dB</span>
      </div>
      <label className="flex items-center gap-2 cursor-pointer">
        <input type="checkbox" className="accent-(--sun) w-4 h-4" checked={patch} onChange={(event) => setPatch(event.currentTarget.checked)} />
        Patch them to the next free outputs
      </label>
      <p className="text-faint text-[13px]">Sends go before the fader; each can be changed afterwards.</p>
      <div className="flex justify-end gap-2">
        <Button onClick={() => onOpenChange(false)}>Cancel</Button>
        <Button tone="main" type="submit" disabled={list.length === 0}>
          {list.length > 1 ? `Make ${list.length} mixes` : "Make the mix"}
        </Button>
      </div>
    </form>
  );
}
