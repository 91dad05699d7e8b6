import { useEffect, useEffectEvent, useState } from "react";
import { type Begun, begunOf, ended } from "../../data/begun";
import { bringList, lookAtList, takeList } from "../../data/http";
import { notify } from "../../data/show";
import type { Ask, ListChoices, ListReply } from "../../data/types";
import { useLink, useShow } from "../../data/use";
import { Button } from "../../ui/Button";
import { Dialog } from "../../ui/Dialog";
import { Waiting } from "../../ui/Waiting";
import { ChooseFile } from "./ChooseFile";
import { Gone, ListRows } from "./ListRows";
import { ListWays } from "./ListWays";

/** Bring in a list: choose a file, see what becomes of each row, take it in one edit. */
export function ImportDialog({
  open,
  file,
  onOpenChange,
}: {
  open: boolean;
  file: File | null;
  onOpenChange: (open: boolean) => void;
}) {
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

const AS_READ: ListChoices = {
  roles: [],
  boxes: {},
  out: [],
  kept: [],
  patch: true,
  odd_pairs: false,
};

/** A stereo mix for each name, all else as a new mix has it. */
function earsOf({ ears, channels }: Begun): Ask {
  return {
    action: "make_mixes",
    names: ears
      .split(/[,;\n]/)
      .map((name) => name.trim())
      .filter(Boolean),
    stereo: true,
    channels,
  };
}

function Import({ given, onDone }: { given: File | null; onDone: () => void }) {
  const link = useLink();
  const showId = useShow((state) => state.desk!.show.id);
  const [list, setList] = useState<ListReply | null>(null);
  const [choices, setChoices] = useState<ListChoices>(AS_READ);
  const [fault, setFault] = useState("");
  const [busy, setBusy] = useState(false);

  const working = async (work: () => Promise<void>) => {
    setBusy(true);
    setFault("");
    try {
      await work();
    } catch (error) {
      setFault((error as Error).message);
    }
    setBusy(false);
  };
  const bring = (file: File) =>
    working(async () => {
      setList(null);
      setChoices(AS_READ);
      setList(await bringList(showId, file));
    });
  const look = (changed: Partial<ListChoices>) => {
    if (!list) return;
    const next = { ...choices, ...changed };
    setChoices(next);
    void working(async () => setList(await lookAtList(showId, list.file, next)));
  };
  const take = () =>
    working(async () => {
      if (!list) return;
      try {
        const taken = await takeList(showId, list.file, choices, list.shown);
        notify(`${taken.says}. Undo takes it all back.`);
        onDone();
        const begun = begunOf(showId);
        ended(showId);
        // who was named when the show was made has ears as soon as there is something to hear
        if (begun?.ears.trim()) await link.do(earsOf(begun), { quiet: false });
      } catch (error) {
        // what was shown may no longer be what would be taken: show what it is now, with the refusal
        setList(await lookAtList(showId, list.file, choices));
        throw error;
      }
    });

  // a list that was given with the show is shown at once
  const lookAtGiven = useEffectEvent(() => {
    const begun = begunOf(showId);
    if (begun?.fault) setFault(begun.fault);
    if (begun?.list) {
      const id = begun.list;
      void working(async () => setList(await lookAtList(showId, id, AS_READ)));
    }
  });
  useEffect(() => lookAtGiven(), []);

  // rows that were pasted come as a file already
  const bringGiven = useEffectEvent((file: File) => void bring(file));
  useEffect(() => {
    if (given) bringGiven(given);
  }, [given]);

  const lines = list ? list.new + list.changed + list.same : 0;
  return (
    <div className="flex flex-col gap-3 mt-3 min-h-0">
      {!list && <ChooseFile onFile={(chosen) => void bring(chosen)} />}
      {(fault || list?.refused) && (
        <p role="alert" className="rounded-xl border border-coral bg-card px-3 py-2 shrink-0">
          {fault || list?.refused}
        </p>
      )}
      {list && (
        <>
          <ListWays list={list} choices={choices} onChoices={look} />
          <div className="scrolls flex-1 min-h-40 rounded-xl border border-line">
            {list.lists.map((one, number) => (
              <ListRows
                key={number}
                number={number}
                list={list}
                one={one}
                choices={choices}
                onChoices={look}
              />
            ))}
            {list.lists.length === 0 && (
              <p className="p-4 text-soft">
                No list was found on this sheet. Say which row holds its headings.
              </p>
            )}
            <Gone list={list} choices={choices} onChoices={look} />
          </div>
          <div className="flex items-center gap-3 shrink-0 flex-wrap">
            <Summary list={list} />
            <span className="flex-1" />
            {busy && <Waiting />}
            <Button onClick={() => setList(null)}>Another file</Button>
            <Button
              tone="main"
              disabled={busy || lines === 0 || list.refused !== null}
              onClick={() => void take()}
            >
              Take {lines} {lines === 1 ? "line" : "lines"}
            </Button>
          </div>
        </>
      )}
      {busy && !list && <Waiting />}
    </div>
  );
}

/** What taking it would do, in one line; who gets no channel in another. */
function Summary({ list }: { list: ListReply }) {
  const leaving = list.gone.filter((one) => one.leaves).length;
  const parts = [
    [list.new, "new"],
    [list.changed, "changed"],
    [list.same, "as they are"],
    [leaving, leaving === 1 ? "leaves the list" : "leave the list"],
    [list.problems, "cannot be taken"],
  ] as const;
  const said = parts.filter(([count]) => count > 0).map(([count, word]) => `${count} ${word}`);
  const named = list.unpatched.slice(0, 4).join(", ");
  const more = list.unpatched.length > 4 ? ` and ${list.unpatched.length - 4} more` : "";
  return (
    <div role="status" data-testid="list-summary">
      <strong>{said.join(", ") || "Nothing to take"}</strong>
      {list.unpatched.length > 0 && (
        <p className="text-coral">
          No channel is left for {named}
          {more}.
        </p>
      )}
    </div>
  );
}
