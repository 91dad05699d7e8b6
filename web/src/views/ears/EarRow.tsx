import type { ReactNode } from "react";
import type { EarRow as Row } from "../../data/types";
import { useLink, useOn, useShow, useText } from "../../data/use";
import { levelText, whenText } from "../../data/words";
import { Button } from "../../ui/Button";
import { ColourBar } from "../../ui/Panel";
import { InRow, type useRows, useTabIndex } from "../../ui/reach";

/** How far self stands, in words, where it is no number. */
const STANDS: Readonly<Record<string, string>> = {
  alone: "alone",
  missing: "not in it",
  nothing: "hears nothing",
  unknown: "level not known",
  none: "plays nothing itself",
};
const LOWEST = -15;
const HIGHEST = 18;
const BOTTOM_DBFS = -48;

/** What nobody would want: lacking, or past full scale; below the aim is told by its number. */
const isWrong = (row: Row): boolean =>
  row.missing.length + row.cues.length > 0 || (row.dbfs ?? -1) > 0 || row.stands === "nothing";

/** For drawing only. */
const place = (value: number, low: number, high: number): string =>
  `${Math.min(100, Math.max(0, ((value - low) / (high - low)) * 100))}%`;

interface Props {
  row: Row;
  rows: ReturnType<typeof useRows>;
  phone: "open" | "not open" | "no link";
  /** When a phone moved something last; "": never. */
  movedAt: string;
  open: boolean;
  onOpen: () => void;
}

/** One mix: who, how they stand over the rest, what they lack, what is loud; a press unfolds it. */
export function EarRow({ row, rows, phone, movedAt, open, onOpen }: Props) {
  const calls = useShow((state) => state.calls.some((call) => call.mix === row.mix));
  const colour = useText(`${row.mix}/colour`);
  return (
    <InRow of={row.mix} rows={rows}>
      <div
        className={`row-ear min-h-[58px] border-t border-line ${isWrong(row) ? "bg-blocked/25" : ""}`}
      >
        <ColourBar colour={colour} />
        <Opener open={open} onOpen={onOpen} label={row.name}>
          <span dir="auto" className="block font-semibold text-[15.5px] break-words leading-snug">
            {row.who || row.name}
          </span>
          <span dir="auto" className="block text-[12.5px] text-faint break-words leading-snug">
            {[row.who && row.name, row.packs[0] ?? row.outputs.join(", ")]
              .filter(Boolean)
              .join(", ") || "no output"}
          </span>
          {(row.locked || calls || phone === "open" || movedAt) && (
            <span className="block text-[12.5px] break-words leading-snug">
              {calls && <strong className="text-sun-text">calls </strong>}
              {row.locked ? (
                <span className="text-iris">
                  phone locked{row.lock_reason && `: ${row.lock_reason}`}
                </span>
              ) : (
                phone === "open" && <span className="text-sea">phone open</span>
              )}
              {movedAt && (
                <span className="text-faint">
                  {row.locked || phone === "open" ? ", " : "phone "}moved {whenText(movedAt)}
                </span>
              )}
            </span>
          )}
        </Opener>
        <Over row={row} />
        <Missing row={row} />
        <span style={{ gridArea: "loudest" }} className="text-[13.5px] break-words leading-snug">
          {row.loudest.length === 0 && <span className="text-faint">nothing expected</span>}
          {row.loudest.map((one, index) => (
            <span key={one.source}>
              {index > 0 && ", "}
              <span className={one.own ? "font-bold" : "text-soft"} dir="auto">
                {one.own && row.selves.length === 1 ? "themselves" : one.name}
              </span>{" "}
              <span className={one.own ? "font-bold" : "text-soft"}>{levelText(one.dbfs, 0)}</span>
            </span>
          ))}
        </span>
        <Level row={row} />
        <ListenKey mix={row.mix} name={row.name} />
      </div>
    </InRow>
  );
}

function Opener({
  open,
  onOpen,
  label,
  children,
}: {
  open: boolean;
  onOpen: () => void;
  label: string;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      tabIndex={useTabIndex()}
      aria-expanded={open}
      title={`${open ? "Fold" : "Unfold"} ${label}`}
      onClick={onOpen}
      style={{ gridArea: "name" }}
      className="min-w-0 text-left py-1.5 cursor-pointer min-h-11 hover:bg-card rounded-md px-1"
    >
      {children}
    </button>
  );
}

/** Self over the rest: from as loud as the rest (the middle mark) to where it stands, and the aim. */
function Over({ row }: { row: Row }) {
  if (row.stands !== "over")
    return (
      <span
        style={{ gridArea: "over" }}
        className={`text-[14px] ${row.stands === "missing" || row.stands === "nothing" ? "text-coral font-semibold" : "text-soft"}`}
      >
        {STANDS[row.stands]}
      </span>
    );
  const low = row.short_db > 0;
  const zero = place(0, LOWEST, HIGHEST);
  const here = place(row.over_db, LOWEST, HIGHEST);
  const [left, right] = row.over_db < 0 ? [here, zero] : [zero, here];
  return (
    <span style={{ gridArea: "over" }} className="flex items-center gap-2 min-w-0">
      <span
        className="relative h-4 flex-1 min-w-12"
        title={`Aim ${levelText(row.aim_db)} dB; the mark in between is as loud as all the rest`}
      >
        <span aria-hidden className="absolute inset-x-0 top-[5px] h-1.5 rounded-full bg-line" />
        <span aria-hidden className="absolute inset-y-0 w-px bg-paper/70" style={{ left: zero }} />
        <span
          aria-hidden
          className={`absolute top-[5px] h-1.5 rounded-full ${low ? "bg-coral" : "bg-sea"}`}
          style={{ left, width: `calc(${right} - ${left})` }}
        />
        <span
          aria-hidden
          className="absolute inset-y-0 w-0.5 bg-sun"
          style={{ left: place(row.aim_db, LOWEST, HIGHEST) }}
        />
      </span>
      <strong
        data-testid="over"
        className={`w-14 text-right text-[16px] ${low ? "text-coral" : ""}`}
        title={low ? `${levelText(row.short_db)} dB below the aim` : undefined}
      >
        {levelText(row.over_db)}
      </strong>
    </span>
  );
}

/** Whom or what they lack, and who would be there but is silent just now. */
function Missing({ row }: { row: Row }) {
  const lacking = [...row.missing, ...row.cues];
  return (
    <span
      style={{ gridArea: "missing" }}
      className="text-[13.5px] break-words leading-snug"
      dir="auto"
    >
      {lacking.length > 0 && <strong className="text-coral">{lacking.join(", ")}</strong>}
      {row.silent_now.length > 0 && (
        <span className="block text-soft">silent now: {row.silent_now.join(", ")}</span>
      )}
      {lacking.length + row.silent_now.length === 0 && (
        <span className="text-faint phone:hidden">nothing</span>
      )}
    </span>
  );
}

/** The level expected behind the fader, against full scale and what the ceiling would let it come to. */
function Level({ row }: { row: Row }) {
  const at = (dbfs: number) => place(dbfs, BOTTOM_DBFS, 3);
  const over = row.dbfs !== null && row.dbfs > 0;
  return (
    <span style={{ gridArea: "level" }} className="flex items-center gap-2 min-w-0">
      <span className="relative h-4 flex-1 min-w-10">
        <span aria-hidden className="absolute inset-x-0 top-[3px] h-2.5 rounded-sm bg-line" />
        <span
          aria-hidden
          className={`absolute left-0 top-[3px] h-2.5 rounded-sm ${over ? "bg-coral" : "bg-heard"}`}
          style={{ width: row.dbfs === null ? "0%" : at(row.dbfs) }}
        />
        {row.ceiling_dbfs !== null && (
          <span
            aria-hidden
            className="absolute inset-y-0 w-1 bg-coral"
            style={{ left: at(row.ceiling_dbfs) }}
          />
        )}
      </span>
      <span
        className={`w-[74px] text-right whitespace-nowrap ${over ? "text-coral font-bold" : ""}`}
      >
        {row.dbfs === null ? "—" : levelText(row.dbfs, 0)}
        {row.ceiling_dbfs !== null && (
          <span className="text-faint"> / {levelText(row.ceiling_dbfs, 0)}</span>
        )}
      </span>
    </span>
  );
}

/** Hear what they hear, and nothing else; it changes nobody's ears, and says so. */
function ListenKey({ mix, name }: { mix: string; name: string }) {
  const link = useLink();
  const on = useOn(`${mix}/solo`);
  return (
    <span style={{ gridArea: "listen" }} className="justify-self-end">
      <Button
        tone={on ? "main" : "plain"}
        aria-pressed={on}
        aria-label={`Listen as ${name}`}
        title={`Hear what ${name} hears. Nobody's ears change.`}
        className="coarse:h-11"
        onClick={() => void link.do({ action: "listen_as", mix, on: !on })}
      >
        Listen
      </Button>
    </span>
  );
}
