import { memo, useMemo } from "react";
import { isOf, isSource, stripKind, thingOf } from "../../data/address";
import { type ShowState, valueIn } from "../../data/show";
import type { Ask } from "../../data/types";
import {
  listedName,
  select,
  socketName,
  stripName,
  useLink,
  useOn,
  useShow,
  useText,
} from "../../data/use";
import { DEVICE_WORD, levelText, TAP_WORD } from "../../data/words";
import { Choice } from "../../ui/Choice";
import { ChooseBox, useIsChosen } from "../../ui/chosen";
import { Toggle } from "../../ui/Toggle";
import { TypedField } from "../../ui/TypedField";

const DEVICES = Object.entries(DEVICE_WORD);
const CHANNEL_TAPS = Object.entries(TAP_WORD);
const BUS_TAPS = CHANNEL_TAPS.filter(([tap]) => tap.includes("fader"));

/** What an output can carry, by name; the names are put together only when one of them changes. */
function useSources(): readonly (readonly [string, string])[] {
  const named = useShow((state) =>
    [
      ...[
        ...state.mixes.map((n) => `mix/${n}`),
        ...state.groups.map((n) => `group/${n}`),
        ...state.matrices.map((n) => `matrix/${n}`),
      ].map((bus) => `${bus}\t${listed(state, bus)}\t${valueIn(state, `${bus}/format`)}`),
      // a return has direct outs where the desk says so
      ...(state.desk?.direct_returns.length ? state.returns : []).map(
        (n) => `return/${n}\t${listed(state, `return/${n}`)}\tstereo`,
      ),
      ...state.channels.map((n) => `channel/${n}\t${listed(state, `channel/${n}`)}\t`),
    ].join("\n"),
  );
  return useMemo(() => {
    const found: [string, string][] = [
      ["", "—"],
      ["house/left", "House L"],
      ["house/right", "House R"],
      ["house", "House, mono sum"],
      ["mono", "Mono"],
    ];
    for (const row of named.split("\n").filter(Boolean)) {
      const [strip, name, number, format] = row.split("\t") as [string, string, string, string];
      if (isOf(strip, "channel")) found.push([`${strip}/direct`, `${name}, direct${number}`]);
      else if (format === "stereo")
        found.push(
          [`${strip}/left`, `${name} L${number}`],
          [`${strip}/right`, `${name} R${number}`],
          [strip, `${name}, mono sum${number}`],
        );
      else found.push([strip, `${name}${number}`]);
    }
    return [...found, ...INNER];
  }, [named]);
}

/** The desk's own: what is soloed, who talks to the stage, the tone. */
const INNER: [string, string][] = [
  ["solo/left", "Solo L"],
  ["solo/right", "Solo R"],
  ["solo", "Solo, mono sum"],
  ["talkback", "Talkback"],
  ["oscillator", "Oscillator"],
];

/** Its name, and behind it its number; a mix and the return of its effect are often called alike. */
function listed(state: ShowState, strip: string): string {
  const name = stripName(state, strip);
  const feeds = isOf(strip, "mix") && valueIn(state, `${strip}/serves`) === "effect";
  const into = feeds ? ", into the effect" : "";
  return `${name}\t${listedName(state, strip).slice(name.length)}${into}`;
}

interface Props {
  socket: string;
  /** Asked for when the socket is in use: somebody would lose it, which is shown first. */
  onTake: (ask: Ask) => void;
}

export const OutputRow = memo(function OutputRow({ socket, onTake }: Props) {
  const link = useLink();
  const name = useShow((state) => socketName(state, socket));
  const source = useText(`${socket}/source`);
  const sources = useSources();
  // a source that is no longer offered (a mix given up) still shows what it is
  const options = sources.some(([value]) => value === source)
    ? sources
    : [...sources, [source, source] as const];
  const trim = useShow((state) => valueIn(state, `${socket}/trim`) as number);
  const delay = useShow((state) => valueIn(state, `${socket}/delay_ms`) as number);
  const tap = useText(`${socket}/tap`);
  const turned = useOn(`${socket}/polarity`);
  const set = (leaf: string) => (typed: string) => void link.type(`${socket}/${leaf}`, typed);
  const choose = (value: string) => {
    const ask: Ask = { action: "patch_output", socket, source: value || null };
    if (source || inBlocks) onTake(ask);
    else void link.do(ask);
  };
  const listener = thingOf(source).thing;
  const inBlocks = useShow(
    (state) =>
      (state.desk?.boxes.find((box) => box.key === thingOf(socket).box)?.output_block ?? 1) > 1,
  );
  const direct = isSource(source);
  const taps = useShow((state) =>
    (isOf(source, "return") ? state.desk?.direct_returns : state.desk?.direct_channels)?.join(),
  );
  const tapped = stripKind(source) !== undefined;
  const chosen = useIsChosen(socket);
  return (
    <div
      data-output={socket}
      onFocus={() => {
        // a direct out is a listener of its own: its strip, at its socket
        if (direct) select(thingOf(source).thing, socket);
        else if (tapped) select(null, listener);
      }}
      className={`row-output h-[calc(100%-2px)] rounded-md px-2 ${chosen ? "bg-raise" : source ? "bg-card" : "bg-floor"}`}
    >
      <label
        className={`flex items-center gap-2 self-stretch cursor-pointer ${source ? "" : "text-faint"}`}
        style={{ gridArea: "socket" }}
      >
        <ChooseBox of={socket} name={name} />
        {name}
      </label>
      <Choice
        area="carries"
        label={`${name} carries`}
        value={source}
        options={options}
        onChange={choose}
        className={source ? "font-semibold" : "text-faint"}
      />
      {tapped ? (
        <Choice
          area="tap"
          label={`Tap of ${name}`}
          value={tap}
          options={direct ? CHANNEL_TAPS.filter(([one]) => taps?.includes(one)) : BUS_TAPS}
          onChange={set("tap")}
          className="text-[13px]"
        />
      ) : (
        <span className="text-faint pl-1.5" style={{ gridArea: "tap" }}>
          {source ? "as it is" : "free"}
        </span>
      )}
      <TypedField
        area="trim"
        label={`Trim of ${name}`}
        value={levelText(trim)}
        align="right"
        onCommit={set("trim")}
        data={{ "data-column": "trim" }}
        className={trim ? "" : "text-faint"}
      />
      <TypedField
        area="delay"
        label={`Delay of ${name} in ms`}
        value={String(delay)}
        align="right"
        onCommit={set("delay_ms")}
        data={{ "data-column": "delay" }}
        className={delay ? "" : "text-faint"}
      />
      <Toggle
        label={`Polarity of ${name} inverted`}
        tone="sun"
        pressed={turned}
        onChange={(on) => set("polarity")(on ? "on" : "off")}
      >
        ±
      </Toggle>
      <Choice
        area="device"
        label={`Device on ${name}`}
        value={useText(`${socket}/device`)}
        options={DEVICES}
        onChange={set("device")}
        className="text-[13px]"
      />
      <TypedField
        area="label"
        label={`Connected to ${name}`}
        value={useText(`${socket}/label`)}
        placeholder="—"
        maxLength={60}
        onCommit={set("label")}
        data={{ "data-column": "label" }}
      />
    </div>
  );
});
