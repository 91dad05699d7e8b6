import { useCallback, useMemo, useState } from "react";
import { inWords } from "../../data/address";
import { trueLevel, useMadeOf, useMutedBy } from "../../data/ruled";
import { hasPhrase } from "../../data/search";
import { type ShowState, store, valueIn } from "../../data/show";
import { useStrips } from "../../data/strips";
import type { Ask } from "../../data/types";
import { stripName, useShow } from "../../data/use";
import { cellText } from "../../data/words";
import { useJoining } from "../../ui/Joining";
import { useCoarse } from "../../ui/media";
import { type CellMark, PaintTable } from "../../ui/PaintTable";
import { SearchField } from "../../ui/SearchField";
import { KIND, type Kind } from "./kinds";
import { RulerHead } from "./RulerHead";

/** Strips that can be members, in the order of the desk; for DCAs the DCAs themselves last. */
function useRows(kind: Kind, filter: string): readonly string[] {
  const used = useStrips();
  const dcas = useShow((state) => state.dcas);
  return useMemo(() => {
    const strips = [...used, ...(kind === "dca" ? dcas.map((n) => `dca/${n}`) : [])];
    const said = hasPhrase(filter);
    const state = store.getState(); // names as they are when one types: no move is followed for them
    return strips.filter((strip) => said(`${stripName(state, strip)} ${inWords(strip)}`));
  }, [kind, filter, used, dcas]);
}

/** Strips against DCAs, mute groups or gangs. */
export function MembersTable({ kind, rulers }: { kind: Kind; rulers: readonly number[] }) {
  const [filter, setFilter] = useState("");
  const rows = useRows(kind, filter);
  const columns = useMemo(() => rulers.map((number) => `${kind}/${number}`), [kind, rulers]);
  const coarse = useCoarse();
  const width = kind === "gang" ? 98 : 66; // what a gang carries takes words
  const { join, bar } = useJoining();
  const onAsk = useCallback((ask: Ask) => void join(ask), [join]);
  return (
    <>
      {bar}
      <div className="flex items-center gap-3 pb-2 shrink-0">
        <SearchField
          label="Find strips"
          placeholder="Find a strip"
          value={filter}
          onChange={setFilter}
        />
        <span className="text-faint text-[13px] phone:hidden">
          Paint by dragging, or arrows and Space.
          {kind === "dca" && " A ring: by way of another DCA."}
        </span>
      </div>
      <PaintTable
        label={`Strips against ${KIND[kind].title}`}
        rows={rows}
        columns={columns}
        width={width}
        headHeight={coarse ? 214 : 140}
        headWord="Strip, and what it comes to"
        head={(ruler) => (
          <RulerHead key={ruler} ruler={ruler} kind={kind} width={width} onAsk={onAsk} />
        )}
        rowEnd={comesTo}
        marks={membership}
        words={WORDS}
        draw={drawn}
        onGive={(cells, on) =>
          onAsk({
            action: "moves",
            moves: cells.map((cell) => ({ address: `${cell}/on`, value: on })),
          })
        }
      />
    </>
  );
}

const WORDS = { m: "member", r: "by way of another", ".": "no member", "-": "itself" } as const;

/** Which of the columns a strip is in, and which rule it by way of another: that the core says. */
function membership(state: ShowState, strip: string, columns: readonly string[]): string {
  const by = state.ruled.get(strip)?.by;
  return columns
    .map((ruler) => {
      if (ruler === strip) return "-";
      return state.members.get(ruler)?.has(strip) ? "m" : by?.includes(ruler) ? "r" : ".";
    })
    .join("");
}

const comesTo = (strip: string) => <ComesTo strip={strip} />;
const drawn = (mark: CellMark, ruler: string) => <Mark kind={mark} ruler={ruler} />;

function ComesTo({ strip }: { strip: string }) {
  const level = useShow((state) => trueLevel(state, strip));
  const made = useMadeOf(strip);
  const muted = useMutedBy(strip);
  const own = useShow((state) => valueIn(state, `${strip}/mute`) === true);
  const silent = own || muted !== "";
  return (
    <span
      title={made || muted || undefined}
      className={silent ? "text-coral text-[13px]" : made ? "text-sea font-semibold" : "text-soft"}
    >
      {silent ? "muted" : cellText(level)}
    </span>
  );
}

function Mark({ kind, ruler }: { kind: CellMark; ruler: string }) {
  const colour = useShow((state) => String(valueIn(state, `${ruler}/colour`)));
  if (kind === ".") return null;
  return (
    <span
      aria-hidden
      className={kind === "m" ? "drawn w-5 h-5 rounded-md" : "w-4 h-4 rounded-full border-2"}
      style={
        kind === "m"
          ? { background: `var(--mark-${colour})` }
          : { borderColor: `var(--strip-${colour})` }
      }
    />
  );
}
