import type { PlannedTrack, TrackRow, Tracks } from "../../data/types";
import { useLink, useShow } from "../../data/use";
import { levelText } from "../../data/words";
import { InRow, useRows } from "../../ui/reach";
import { Toggle } from "../../ui/Toggle";

/** Every track of the recorder: what it carries, how loud, and, with a plan, what it would carry. */
export function TrackList({ told }: { told: Tracks }) {
  const keys = told.tracks.map((track) => `track-${track.track}`);
  const rows = useRows(keys);
  const found = useShow((state) => state.plan);
  const plan = found?.found && found.basis === told.basis ? found.tracks : null;
  return (
    <section aria-label={`Tracks of ${told.recorder}`} style={{ gridArea: "tracks" }}>
      <ul {...rows.hand} className="tracks-list">
        {told.tracks.map((track) => {
          const planned = plan?.[track.track - 1];
          return (
            <InRow key={track.track} of={`track-${track.track}`} rows={rows}>
              <Row track={track} becomes={planned?.changed ? planned : null} />
            </InRow>
          );
        })}
      </ul>
    </section>
  );
}

interface Props {
  track: TrackRow;
  /** What it would carry; null: as it does. */
  becomes: PlannedTrack | null;
}

function Row({ track, becomes }: Props) {
  const link = useLink();
  const loud = track.dbfs !== null && track.dbfs > 0;
  return (
    <li
      data-row={`track-${track.track}`}
      data-track={track.track}
      className={`row-track rounded-md px-2 h-8 coarse:h-11 ${becomes ? "bg-card" : "bg-floor"}`}
    >
      <span className="text-faint text-right tabular-nums">{track.track}</span>
      <span
        className="truncate"
        dir="auto"
        title={[track.carries, track.taken, track.mix && `by ${track.mix}`]
          .filter(Boolean)
          .join(", ")}
      >
        {becomes ? (
          <>
            <strong className="text-sun-text">{becomes.name || "nothing"}</strong>
            {track.carries && track.name !== becomes.name && (
              <span className="text-faint"> was {track.name}</span>
            )}
          </>
        ) : (
          <span className={track.carries ? "" : "text-faint"}>{track.name || "free"}</span>
        )}
      </span>
      <span className="text-soft text-[12.5px] truncate">
        {becomes ? <span className="text-sun-text">{becomes.taken}</span> : track.taken}
      </span>
      <span
        className={`text-right text-[12.5px] tabular-nums ${loud ? "text-coral font-semibold" : "text-soft"}`}
        title="Level expected, in dBFS"
      >
        {track.dbfs === null || becomes ? "" : levelText(track.dbfs)}
      </span>
      <Toggle
        label={`Track ${track.track} stays as it is`}
        tone="sun"
        pressed={track.held}
        onChange={(on) => void link.put(`${track.socket}/held`, on)}
      >
        stays
      </Toggle>
    </li>
  );
}
