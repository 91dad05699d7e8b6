import { useState } from "react";
import { newId } from "../../data/id";
import { namesIn } from "../../data/names";
import { store } from "../../data/show";
import type { Ask } from "../../data/types";
import { useLink, useShow } from "../../data/use";
import { SERVES_WORD, TAP_WORD } from "../../data/words";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Dialog } from "../../ui/Dialog";

// an effect is more than a mix: it is made with its engine and return
const MIX_SERVES: readonly (readonly [string, string])[] = [
  ["", "used for: by its name"],
  ...Object.entries(SERVES_WORD).filter(([serves]) => serves !== "effect"),
];

const TAPS = Object.entries(TAP_WORD);

interface Props {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  onMade: (strip: string) => void;
}

const KINDS = [
  ["mix", "mixes"],
  ["effect", "shared effects"],
  ["group", "groups"],
  ["matrix", "matrices"],
] as const;
type Kind = (typeof KINDS)[number][0];

const ONE: Record<Kind, string> = {
  mix: "mix",
  effect: "effect",
  group: "group",
  matrix: "matrix",
};
const SAID: Record<Kind, string> = {
  mix: "“Wedge”, “side fill” or “stream” in a name tells what it is for, else it is for ears; a wedge is mono. Before the fader and after the mute suits performers: who mutes a microphone expects silence in the ears too. Each send can be changed afterwards.",
  effect:
    "Each takes a mix, the next free engine and a return to the house. A channel joins it by one send, behind its fader.",
  group:
    "A group stands between channels and the house: assign channels to it, and take them off the house.",
  matrix: "A matrix blends the house, mono, groups and mixes for a room, a stream or a relay.",
};
const EXAMPLE: Record<Kind, string> = {
  mix: "Ears fiddle, Ears bass, Wedge ring",
  effect: "Hall, Plate",
  group: "Band, Voices",
  matrix: "Foyer, Stream",
};

/** Make mixes, effects, groups or matrices, one for each name, in one step. */
export function NewMixDialog(props: Props) {
  return (
    <Dialog
      title="New mixes, effects, groups and matrices"
      about="One for each name: several names, separated by commas or lines, make several."
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
  const usual = useShow((state) => state.desk!.new_mix);
  const [serves, setServes] = useState("");
  const [channels, setChannels] = useState("");
  const [level, setLevel] = useState(String(usual.level_db));
  const [patch, setPatch] = useState(true);
  const [tap, setTap] = useState(usual.tap);
  const list = namesIn(names);
  const field = "h-9 px-2.5 rounded-lg border border-edge bg-card placeholder:text-faint min-w-0";
  const [kind, setKind] = useState<Kind>("mix");
  const make = async () => {
    const strips =
      kind === "effect"
        ? "mixes"
        : kind === "mix"
          ? "mixes"
          : kind === "group"
            ? "groups"
            : "matrices";
    const before = new Set(store.getState()[strips]);
    const stereo = format === "stereo";
    const asks: Ask[] =
      kind === "mix"
        ? [
            {
              action: "make_mixes",
              names: list,
              stereo,
              serves,
              channels,
              level: channels.trim() ? level : "off",
              patch,
              tap,
            },
          ]
        : kind === "effect"
          ? list.map((name): Ask => ({ action: "make_effect", name, stereo }))
          : [
              {
                action: "make_buses",
                kind,
                names: list,
                stereo,
                patch: kind === "matrix" && patch,
              },
            ];
    const gesture = newId();
    for (const ask of asks) if (!(await link.do(ask, { quiet: false, gesture }))) return;
    onOpenChange(false);
    const made = store.getState()[strips].find((number) => !before.has(number));
    if (made) onMade(`${kind === "effect" ? "mix" : kind}/${made}`);
  };
  return (
    <form
      className="mt-4 flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void make();
      }}
    >
      <Choice
        boxed
        label="What to make"
        value={kind}
        options={KINDS}
        onChange={(value) => setKind(value as Kind)}
        className="h-9"
      />
      <textarea
        autoFocus
        aria-label="Names"
        rows={3}
        placeholder={EXAMPLE[kind]}
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
        <Choice
          boxed
          label="Stereo or mono"
          value={format}
          options={[
            ["stereo", "stereo"],
            ["mono", "mono"],
          ]}
          onChange={setFormat}
          className="h-9 flex-1"
        />
        {kind === "mix" && (
          <Choice
            boxed
            label="Used for"
            value={serves}
            options={MIX_SERVES}
            onChange={setServes}
            className="h-9 flex-1"
          />
        )}
      </div>
      {kind === "mix" && (
        <div className="flex items-center gap-2">
          <span className="text-soft w-20">Channels</span>
          <input
            aria-label="Channels to send"
            placeholder="none, or 1-24"
            className={`${field} flex-1`}
            value={channels}
            onChange={(event) => setChannels(event.currentTarget.value)}
          />
          <span className="text-soft">at</span>
          <input
            aria-label="Level of the sends"
            className={`${field} w-20 text-right`}
            value={level}
            onChange={(event) => setLevel(event.currentTarget.value)}
            disabled={!channels.trim()}
          />
          <span className="text-soft">dB</span>
        </div>
      )}
      {kind === "mix" && (
        <div className="flex items-center gap-2">
          <span className="text-soft w-20">Sends</span>
          <Choice
            boxed
            label="Tap of the sends"
            value={tap}
            options={TAPS}
            onChange={setTap}
            className="h-9 flex-1"
          />
        </div>
      )}
      {(kind === "mix" || kind === "matrix") && (
        <label className="flex items-center gap-2 cursor-pointer">
          <input
            type="checkbox"
            className="accent-(--sun) w-4 h-4"
            checked={patch}
            onChange={(event) => setPatch(event.currentTarget.checked)}
          />
          Patch them to the next free outputs
        </label>
      )}
      <p className="text-faint text-[13px]">{SAID[kind]}</p>
      <div className="flex justify-end gap-2">
        <Button onClick={() => onOpenChange(false)}>Cancel</Button>
        <Button tone="main" type="submit" disabled={list.length === 0}>
          {list.length > 1
            ? `Make ${list.length} ${KINDS.find(([one]) => one === kind)![1]}`
            : `Make the ${ONE[kind]}`}
        </Button>
      </div>
    </form>
  );
}
