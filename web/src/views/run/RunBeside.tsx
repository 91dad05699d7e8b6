import { useClosing } from "../../data/closing";
import { useSetByHand } from "../../data/hand";
import { mutedBy, useTrueLevel } from "../../data/ruled";
import { colourOf, type ShowState, valueIn } from "../../data/show";
import type { Scene } from "../../data/types";
import { stripName, useOn, useShow, useStripName } from "../../data/use";
import { cellText } from "../../data/words";
import { MuteGroupKey } from "../../ui/MuteGroupKey";
import { type Mark, travelOf } from "../../ui/travel";

const MOST_SILENT = 14;

/** What is under the hand while the show runs: DCAs, mutes, who is silent and why. */
export function RunBeside({ told }: { told: Scene | null }) {
  const dcas = useShow((state) => state.dcas);
  const groups = useShow((state) => state.mute_groups);
  useClosing();
  return (
    <aside
      aria-label="Beside the run"
      className="w-80 slim:w-full shrink-0 scrolls slim:overflow-visible min-h-0 flex flex-col gap-3"
      tabIndex={0}
    >
      {dcas.length > 0 && (
        <section aria-label="DCAs">
          <h2 className="text-soft pb-1">DCAs</h2>
          <ul className="flex flex-col gap-1">
            {dcas.map((number) => (
              <Dca key={number} dca={`dca/${number}`} />
            ))}
          </ul>
        </section>
      )}
      {groups.length > 0 && (
        <section aria-label="Mutes">
          <h2 className="text-soft pb-1">Mutes</h2>
          <ul className="grid grid-cols-2 gap-1.5">
            {groups.map((number) => (
              <li key={number} className="grid">
                <MuteGroupKey group={`mute_group/${number}`} />
              </li>
            ))}
          </ul>
        </section>
      )}
      <Silent />
      {told && told.pinned.length > 0 && (
        <p className="text-iris text-[13.5px]">
          Pins hold {told.pinned.length} {told.pinned.length === 1 ? "value" : "values"} of the next
          scene.
        </p>
      )}
    </aside>
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
    <li className="flex items-stretch gap-1.5 h-9 coarse:h-11">
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

/** Channels that a mute or an off fader keeps silent, each with what does it. */
function silent(state: ShowState): string {
  return state.channels
    .map((number) => {
      const strip = `channel/${number}`;
      const by = mutedBy(state, strip);
      const own = valueIn(state, `${strip}/mute`) === true;
      const off = valueIn(state, `${strip}/fader`) === null;
      const why = own ? "muted" : by || (off ? "fader off" : "");
      return why && `${strip}\t${stripName(state, strip)}\t${why}`;
    })
    .filter(Boolean)
    .join("\n");
}

function Silent() {
  const rows = useShow(silent)
    .split("\n")
    .filter(Boolean)
    .map((row) => row.split("\t") as [string, string, string]);
  return (
    <section aria-label="Silent" className="min-h-0">
      <h2 className="text-soft pb-1">
        Silent <span className="text-faint">{rows.length}</span>
      </h2>
      {rows.length === 0 ? (
        <p className="text-faint">No channel is muted or off.</p>
      ) : (
        <ul>
          {rows.slice(0, MOST_SILENT).map(([strip, name, why]) => (
            <li key={strip} className="flex gap-2 py-0.5">
              <span dir="auto" className="flex-1 min-w-0 truncate">
                {name}
              </span>
              <span className="text-coral text-[13px] truncate max-w-40">{why}</span>
            </li>
          ))}
          {rows.length > MOST_SILENT && (
            <li className="text-faint">and {rows.length - MOST_SILENT} more</li>
          )}
        </ul>
      )}
    </section>
  );
}
