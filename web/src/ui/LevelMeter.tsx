import { levelText } from "../data/words";

const BOTTOM_DBFS = -60;

/** Place of a level on a meter from −60 to 0 dBFS. For drawing only. */
const onMeter = (dbfs: number) => Math.min(1, Math.max(0, 1 - dbfs / BOTTOM_DBFS));

interface Props {
  label: string;
  /** What arrives; null: nothing. */
  dbfs: number | null;
  /** Where it should come to; null: nobody knows. */
  wanted: number | null;
  /** What the mark is, in a word. */
  wantedWord: string;
}

/** A level as it arrives, with a mark where it should come to; large enough for a glance. */
export function LevelMeter({ label, dbfs, wanted, wantedWord }: Props) {
  return (
    <div className="flex items-center gap-3">
      <div
        role="meter"
        aria-label={label}
        aria-valuemin={BOTTOM_DBFS}
        aria-valuemax={0}
        aria-valuenow={dbfs ?? BOTTOM_DBFS}
        aria-valuetext={dbfs === null ? "nothing" : `${levelText(dbfs, 0)} dBFS`}
        className="relative h-8 flex-1 rounded-lg bg-raise overflow-hidden"
      >
        <div
          className={`drawn absolute inset-y-0 left-0 ${dbfs !== null && dbfs > -1 ? "bg-coral" : "bg-sea"}`}
          style={{ width: `${dbfs === null ? 0 : onMeter(dbfs) * 100}%` }}
        />
        {wanted !== null && (
          <div
            className="absolute inset-y-0 w-0.5 bg-sun"
            style={{ left: `${onMeter(wanted) * 100}%` }}
            title={wantedWord}
          />
        )}
      </div>
      <strong className="font-title text-2xl w-24 text-right" data-testid="arrives">
        {dbfs === null ? "—" : levelText(dbfs, 0)}
      </strong>
      <span className="text-faint">dBFS</span>
    </div>
  );
}
