import { type DragEvent, useEffect, useState } from "react";
import { getSample, getSamples, previewList, takeList } from "../../data/http";
import { notify } from "../../data/show";
import { useShow } from "../../data/use";
import type { ListReply, Sample } from "../../data/types";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Dialog } from "../../ui/Dialog";

const ROLE_WORD: Record<ListReply["roles"][number], string> = {
  ignore: "leave out",
  number: "input number",
  name: "name",
  microphone: "mic or DI",
  kind: "kind",
  socket: "socket",
  performer: "performer",
  where: "where",
  stand: "stand",
  phantom: "48 V",
  stereo: "stereo",
  level: "level, dBu",
  notes: "notes",
};

/** Bring in a list: choose a file, see what becomes of each row, take it in one edit. */
export function ImportDialog({ open, file, onOpenChange }: { open: boolean; file: File | null; onOpenChange: (open: boolean) => void }) {
  return (
    <Dialog
      title="Import an input list"
      about="CSV or XLSX, as the band sent it. Nothing is taken until you say so."
      open={open}
      onOpenChange={onOpenChange}
      wide
    >
      {open && <Import given={file} onDone={() => onOpenChange(false)} />}
    </Dialog>
  );
}

function Import({ given, onDone }: { given: File | null; onDone: () => void }) {
  const showId = useShow((state) => state.desk!.show.id);
  const [file, setFile] = useState<File | null>(null);
  const [list, setList] = useState<ListReply | null>(null);
  const [columns, setColumns] = useState("");
  const [fault, setFault] = useState("");
  const [patch, setPatch] = useState(true);
  const [busy, setBusy] = useState(false);

  const read = async (chosen: File, roles = "") => {
    setBusy(true);
    setFault("");
    try {
      const found = await previewList(showId, chosen, roles);
      setFile(chosen);
      setColumns(roles);
      setList(found);
      if (found.patch_problem) setPatch(false);
    } catch (error) {
      if (!roles) setList(null);
      setFault((error as Error).message);
    }
    setBusy(false);
  };

  // rows that were pasted come as a file already
  useEffect(() => {
    if (given) void read(given);
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [given]);

  const take = async () => {
    if (!file) return;
    setBusy(true);
    try {
      const taken = await takeList(showId, file, columns, patch);
      notify(`${taken.says}. Undo takes it all back.`);
      onDone();
    } catch (error) {
      setFault((error as Error).message);
    }
    setBusy(false);
  };

  return (
    <div className="flex flex-col gap-3 mt-3 min-h-0">
      {!list && <Choose onFile={(chosen) => void read(chosen)} />}
      {fault && (
        <p role="alert" className="rounded-xl border border-coral bg-card px-3 py-2">
          {fault}
        </p>
      )}
      {list && file && (
        <>
          <p className="text-soft">
            <strong className="text-paper">{file.name}</strong> read as {list.said}. Put a column right by choosing
            what it is.
          </p>
          <Rows
            list={list}
            onRole={(column, role) => {
              const roles = list.roles.map((known, index) => {
                if (index === column) return role;
                return known === role && role !== "ignore" ? "ignore" : known;
              });
              void read(file, JSON.stringify(roles));
            }}
          />
          <div className="flex items-center gap-3">
            <label className="flex items-center gap-2 cursor-pointer">
              <input
                type="checkbox"
                className="accent-(--sun) w-4 h-4"
                checked={patch}
                onChange={(event) => setPatch(event.currentTarget.checked)}
              />
              Patch them too: free sockets where the list names none, and channels in order
            </label>
            <span className="flex-1" />
            <Button onClick={() => setList(null)}>Another file</Button>
            <Button tone="main" disabled={busy || list.lines === 0} onClick={() => void take()}>
              Take {list.lines} lines{list.problems > 0 && `, leave out ${list.problems}`}
            </Button>
          </div>
          {patch && list.patch_problem && <p className="text-coral">{list.patch_problem}</p>}
        </>
      )}
      {busy && <p className="text-soft">Reading…</p>}
    </div>
  );
}

function Choose({ onFile }: { onFile: (file: File) => void }) {
  const [samples, setSamples] = useState<Sample[]>([]);
  const [over, setOver] = useState(false);
  useEffect(() => {
    getSamples().then(setSamples, () => setSamples([]));
  }, []);
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    const dropped = event.dataTransfer.files[0];
    if (dropped) onFile(dropped);
  };
  return (
    <>
      <label
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={drop}
        className={`grid place-items-center h-36 rounded-2xl border-2 border-dashed cursor-pointer focus-within:outline-2 focus-within:outline-sun ${over ? "border-sun bg-raise" : "border-edge bg-card"}`}
      >
        <span className="text-soft">
          Drop a file here, or <span className="text-sun-text underline">choose one</span>
        </span>
        <input
          type="file"
          aria-label="Input list file"
          accept=".csv,.tsv,.txt,.xlsx"
          className="sr-only"
          onChange={(event) => {
            const chosen = event.currentTarget.files?.[0];
            if (chosen) onFile(chosen);
          }}
        />
      </label>
      {samples.length > 0 && (
        <div>
          <p className="text-faint text-[13px] mb-1.5">Or try one that ships with Ombrel:</p>
          <div className="flex gap-2 flex-wrap">
            {samples.map((sample) => (
              <Button key={sample.name} small onClick={() => void getSample(sample.name).then(onFile)} title={sample.about}>
                {sample.name}
              </Button>
            ))}
          </div>
        </div>
      )}
    </>
  );
}

function Rows({ list, onRole }: { list: ListReply; onRole: (column: number, role: ListReply["roles"][number]) => void }) {
  const options = list.choices.map((role) => [role, ROLE_WORD[role]] as const);
  return (
    <div className="scrolls min-h-0 max-h-[52vh] rounded-xl border border-line">
      <table className="w-full text-[13px] border-collapse">
        <thead className="sticky top-0 bg-raise z-10">
          <tr>
            <th className="px-2 py-1.5 text-left text-faint font-normal">Row</th>
            {list.roles.map((role, column) => (
              <th key={column} className="px-1 py-1.5 text-left font-normal">
                <Choice
                  label={`Column ${column + 1} is`}
                  value={role}
                  options={options}
                  onChange={(chosen) => onRole(column, chosen as typeof role)}
                  boxed
                  className={`w-full min-w-20 ${role === "ignore" ? "text-faint" : ""}`}
                />
              </th>
            ))}
            <th className="px-2 py-1.5 text-left text-faint font-normal min-w-56">Becomes</th>
          </tr>
        </thead>
        <tbody>
          {list.rows.map((row) => {
            const idle = !row.problem && row.lines === 0;
            return (
              <tr key={row.number} className={`border-t border-line ${row.problem ? "hatch" : ""} ${idle ? "text-faint" : ""}`}>
                <td className="px-2 py-1 text-faint">{row.number}</td>
                {row.cells.map((cell, column) => (
                  <td key={column} className={`px-2 py-1 max-w-44 truncate ${list.roles[column] === "ignore" ? "text-faint" : ""}`} title={cell}>
                    {cell}
                  </td>
                ))}
                <td className="px-2 py-1">
                  {row.problem ? (
                    <span className="text-coral font-semibold">Cannot be taken: {row.problem}</span>
                  ) : (
                    <span className={idle ? "" : "text-sea"}>{row.says}</span>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
