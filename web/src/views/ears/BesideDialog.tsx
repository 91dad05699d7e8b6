import { useEffect, useState } from "react";
import { stripName, useLink, useShow } from "../../data/use";
import { levelText, panText } from "../../data/words";
import { Choice } from "../../ui/Choice";
import { Dialog } from "../../ui/Dialog";
import { Waiting } from "../../ui/Waiting";

interface Props {
  /** The mix at the left; null: closed. */
  one: string | null;
  onClose: () => void;
}

/** Two mixes side by side, what differs most first. */
export function BesideDialog({ one, onClose }: Props) {
  return (
    <Dialog
      title="Side by side"
      about="Every source that either has, by the sends' own values; what only one has comes first, then by distance."
      open={one !== null}
      onOpenChange={onClose}
      wide
    >
      {one && <Table key={one} one={one} />}
    </Dialog>
  );
}

function Table({ one }: { one: string }) {
  const link = useLink();
  const names = useShow((state) =>
    state.mixes.map((n) => `mix/${n}\t${stripName(state, `mix/${n}`)}`).join("\n"),
  )
    .split("\n")
    .filter(Boolean)
    .map((row) => row.split("\t") as [string, string]);
  const others = names.filter(([mix]) => mix !== one);
  const [other, setOther] = useState(others[0]?.[0] ?? "");
  const beside = useShow((state) => state.beside);
  useEffect(() => {
    if (!other) return;
    link.watch({ beside: [one, other] });
    return () => link.watch({ beside: null });
  }, [link, one, other]);
  const name = names.find(([mix]) => mix === one)?.[1] ?? "";
  if (!other) return <p className="mt-4 text-soft">There is no other mix yet.</p>;
  const told = beside?.one === one && beside.other === other ? beside : null;
  return (
    <div className="mt-3 flex flex-col min-h-0">
      <div className="grid grid-cols-[minmax(0,1fr)_120px_150px_90px] phone:grid-cols-[minmax(0,1fr)_72px_96px_60px] gap-x-2 items-center pb-1.5">
        <span className="text-faint text-[13px]">{told?.rows.length ?? ""} sources</span>
        <strong dir="auto" className="text-right truncate" title={name}>
          {name}
        </strong>
        <Choice boxed label="The other mix" value={other} options={others} onChange={setOther} />
        <span className="text-faint text-[13px] text-right">differs by</span>
      </div>
      {!told ? (
        <Waiting />
      ) : (
        <ul
          aria-label="Sends side by side"
          tabIndex={0}
          className="scrolls max-h-[60vh] border-t border-line"
        >
          {told.rows.map((row) => (
            <li
              key={row.strip}
              className="grid grid-cols-[minmax(0,1fr)_120px_150px_90px] phone:grid-cols-[minmax(0,1fr)_72px_96px_60px] gap-x-2 py-1 border-b border-line/60"
            >
              <span dir="auto" className="break-words min-w-0">
                {row.name}
              </span>
              <Send db={row.one_db} pan={row.one_pan} />
              <Send db={row.other_db} pan={row.other_pan} />
              <strong className={`text-right ${row.by_db === 0 ? "text-faint" : ""}`}>
                {row.by_db === null ? "only one" : levelText(row.by_db)}
              </strong>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

const Send = ({ db, pan }: { db: number | null; pan: number }) => (
  <span className="text-right whitespace-nowrap">
    {db === null ? <span className="text-faint">off</span> : levelText(db)}
    {db !== null && pan !== 0 && <span className="text-faint"> {panText(pan)}</span>}
  </span>
);
