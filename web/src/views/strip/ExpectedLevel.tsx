import type { StripPath } from "../../data/types";
import { select } from "../../data/use";
import { levelText } from "../../data/words";
import { useRows } from "../../ui/reach";

interface Props {
  expected: NonNullable<StripPath["expected"]>;
  strip: string;
}

/** How loud a bus is expected to be against full scale, and who makes it so. */
export function ExpectedLevel({ expected, strip }: Props) {
  const { dbfs, worst_dbfs: worst, loudest, unknown } = expected;
  const rows = useRows(loudest.map((one) => one.source));
  const over = dbfs !== null && dbfs > 0;
  return (
    <section aria-label="Level expected" className="flex-[1_1_190px] min-w-44 flex flex-col gap-1">
      <h2 className="text-soft">Expected behind the fader</h2>
      {dbfs === null ? (
        <p className="text-faint">Nothing arrives of which a level is known.</p>
      ) : (
        <>
          <p className={over ? "text-coral" : ""}>
            <strong className="font-title text-[22px]">{levelText(dbfs)}</strong> dBFS
            <span className={over ? "" : "text-soft"}>
              {over ? ", past full scale" : `, ${(-dbfs).toFixed(1)} dB of headroom`}
            </span>
          </p>
          {worst !== null && (
            <p className={`text-[13px] ${worst > 0 ? "text-sun-text" : "text-faint"}`}>
              if all peaks meet {levelText(worst)} dBFS
            </p>
          )}
          <ol {...rows.hand}>
            {loudest.map((one) => (
              <li key={one.source} data-row={one.source}>
                <button
                  type="button"
                  tabIndex={rows.reached === one.source ? 0 : -1}
                  onClick={() => select(one.source, strip)}
                  className="w-full h-7 coarse:h-11 flex items-center justify-between gap-2 px-2 rounded-md hover:bg-raise cursor-pointer text-[13.5px]"
                >
                  <span dir="auto" className="truncate">
                    {one.name}
                  </span>
                  <span className="text-soft">{levelText(one.dbfs)}</span>
                </button>
              </li>
            ))}
          </ol>
        </>
      )}
      {unknown.length > 0 && (
        <p className="text-faint text-[13px]">
          No level is known of {unknown.slice(0, 4).join(", ")}
          {unknown.length > 4 && ` and ${unknown.length - 4} more`}.
        </p>
      )}
    </section>
  );
}
