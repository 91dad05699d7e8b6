import { useSetByHand } from "../../data/hand";
import { useTrueLevel } from "../../data/ruled";
import { colourOf } from "../../data/show";
import { useOn, useShow, useStripName } from "../../data/use";
import { cellText } from "../../data/words";
import { InRow, useRows, useTabIndex } from "../../ui/reach";
import { StripHand } from "../../ui/StripHand";
import { type Mark, travelOf } from "../../ui/travel";

/** The DCAs as they stand, each with its mute; `faders`: with faders, the house's before them. */
export function RunHands({ faders }: { faders: boolean }) {
  const dcas = useShow((state) => state.dcas);
  const strips = [...(faders ? ["house"] : []), ...dcas.map((number) => `dca/${number}`)];
  const rows = useRows(strips);
  return (
    <ul className="flex flex-col gap-1" {...rows.hand}>
      {strips.map((strip) => (
        <InRow key={strip} of={strip} rows={rows}>
          {faders ? <Hand strip={strip} /> : <Dca dca={strip} />}
        </InRow>
      ))}
    </ul>
  );
}

/** A DCA or the house, with its fader. */
function Hand({ strip }: { strip: string }) {
  const name = useStripName(strip);
  const colour = useShow((state) => colourOf(state, strip));
  return (
    <li
      data-row={strip}
      data-subject={strip}
      className="flex items-center gap-1.5 min-h-11 pl-3 pr-1 rounded-lg bg-floor border border-line"
      style={{ borderLeft: `4px solid var(--strip-${colour})` }}
    >
      <span dir="auto" className="w-32 phone:w-20 shrink-0 truncate">
        {name}
      </span>
      <StripHand
        strip={strip}
        name={name}
        colour={colour}
        fader={`Fader of ${name}`}
        level={`Level of ${name} in dB`}
      />
    </li>
  );
}

/** A DCA: where it stands, drawn and in figures, and the key that mutes it. */
function Dca({ dca }: { dca: string }) {
  const set = useSetByHand();
  const name = useStripName(dca);
  const muted = useOn(`${dca}/mute`);
  const level = useTrueLevel(dca);
  const colour = useShow((state) => colourOf(state, dca));
  const marks = useShow((state) => state.desk!.fader_marks as Mark[]);
  return (
    <li data-row={dca} data-subject={dca} className="flex items-stretch gap-1.5 h-9 coarse:h-11">
      <span className="relative flex-1 min-w-0 rounded-lg border border-line overflow-hidden flex items-center gap-2 px-2.5">
        <span
          aria-hidden
          className={`absolute left-0 inset-y-0 border-r-[3px] ${muted ? "hatch" : "opacity-45"}`}
          style={{
            width: `${travelOf(level, marks) * 100}%`,
            borderColor: `var(--strip-${colour})`,
            background: muted
              ? undefined
              : `color-mix(in oklab, var(--strip-${colour}) 60%, transparent)`,
          }}
        />
        <span className="relative flex-1 min-w-0 truncate text-[15px]" dir="auto">
          {name}
        </span>{" "}
        <span className="relative font-semibold whitespace-nowrap px-1 rounded bg-ink/70">
          {cellText(level)}
        </span>
      </span>
      <button
        type="button"
        tabIndex={useTabIndex()}
        aria-pressed={muted}
        aria-label={`Mute ${name}`}
        onClick={() => set(`${dca}/mute`, muted ? "off" : "on")}
        className={`w-20 rounded-lg border cursor-pointer ${muted ? "border-2 border-coral bg-blocked text-coral font-semibold" : "border-line bg-card text-soft hover:text-paper"}`}
      >
        {muted ? "muted" : "mute"}
      </button>
    </li>
  );
}
