import { useCloses, useClosing } from "../../data/closing";
import { useSetByHand } from "../../data/hand";
import { mutedBy, useTrueLevel } from "../../data/ruled";
import { type ShowState, valueIn } from "../../data/show";
import type { Scene } from "../../data/types";
import { stripName, useOn, useShow, useStripName } from "../../data/use";
import { cellText } from "../../data/words";

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
          <ul className="grid grid-cols-2 gap-1.5">
            {dcas.map((number) => (
              <Dca key={number} dca={`dca/${number}`} />
            ))}
          </ul>
        </section>
      )}
      {groups.length > 0 && (
        <section aria-label="Mute groups">
          <h2 className="text-soft pb-1">Mute groups</h2>
          <ul className="flex flex-wrap gap-1.5">
            {groups.map((number) => (
              <MuteKey key={number} group={`mute_group/${number}`} />
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

function Dca({ dca }: { dca: string }) {
  const set = useSetByHand();
  const name = useStripName(dca);
  const muted = useOn(`${dca}/mute`);
  const level = useTrueLevel(dca);
  return (
    <li>
      <button
        type="button"
        aria-pressed={muted}
        aria-label={`${name} ${muted ? "muted" : cellText(level)}, ${muted ? "open" : "mute"} it`}
        onClick={() => set(`${dca}/mute`, muted ? "off" : "on")}
        className={`w-full h-11 px-2.5 rounded-lg border flex items-center gap-2 cursor-pointer ${
          muted ? "hatch border-coral text-coral" : "border-line bg-floor hover:border-edge"
        }`}
      >
        <span className="flex-1 min-w-0 truncate text-left text-[15px]">{name}</span>{" "}
        <span className="whitespace-nowrap">{muted ? "muted" : cellText(level)}</span>
      </button>
    </li>
  );
}

/** A key of a mute group; one that is safe says so and takes no press. */
function MuteKey({ group }: { group: string }) {
  const set = useSetByHand();
  const name = useStripName(group);
  const on = useOn(`${group}/on`);
  const safe = useOn(`${group}/safe`);
  const closes = useCloses(group, on);
  return (
    <li>
      <button
        type="button"
        aria-pressed={on}
        disabled={safe}
        onClick={() => set(`${group}/on`, on ? "off" : "on")}
        className={`h-9 px-3 rounded-lg border cursor-pointer disabled:cursor-default text-[14px] ${
          on ? "bg-coral text-ink border-coral font-semibold" : "border-line bg-floor"
        }`}
      >
        {name}
        {safe && <span className={on ? "" : "text-faint"}> safe</span>}
        {closes && <span className={`text-[12.5px] ${on ? "" : "text-faint"}`}> {closes}</span>}
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
              <span className="flex-1 min-w-0 truncate">{name}</span>
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
