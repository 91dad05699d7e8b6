import { forwardRef, useEffect, useState } from "react";
import { openingOf, openShowFile, stopOpening } from "../data/http";
import { newId } from "../data/id";
import { notify } from "../data/show";
import type { Opening } from "../data/types";
import { Button } from "../ui/Button";
import { Dialog } from "../ui/Dialog";

const ASK_MS = 400;

/** The choice of a show file, and how far it is while it is opened; the new show opens by itself. */
export const OpenShowFile = forwardRef<HTMLInputElement>(function OpenShowFile(_, input) {
  const [file, setFile] = useState<{ id: string; name: string } | null>(null);
  const open = (chosen: File) => {
    const id = newId();
    setFile({ id, name: chosen.name });
    openShowFile(chosen, id)
      .then(
        (show) => location.assign(`/hears?show=${show.id}`),
        (error: Error) => notify(error.message, "refused"),
      )
      .finally(() => setFile((now) => (now?.id === id ? null : now)));
  };
  return (
    <>
      <input
        ref={input}
        type="file"
        aria-label="Show file"
        accept=".json"
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const chosen = event.currentTarget.files?.[0];
          if (chosen) open(chosen);
          event.currentTarget.value = "";
        }}
      />
      {file && <Progress key={file.id} id={file.id} name={file.name} />}
    </>
  );
});

function Progress({ id, name }: { id: string; name: string }) {
  const [state, setState] = useState<Opening>({ doing: "sending the file", part: 0 });
  useEffect(() => {
    const timer = setInterval(
      () =>
        openingOf(id).then(
          // before it is there nothing is known of it, nor between its end and the answer
          (now) => now && setState(now),
          () => {
            /* asked again */
          },
        ),
      ASK_MS,
    );
    return () => clearInterval(timer);
  }, [id]);
  const stop = () => void stopOpening(id).catch(() => undefined);
  return (
    <Dialog title="Opening a show file" about={name} open onOpenChange={stop}>
      <div className="mt-4 flex items-center gap-3">
        <span
          role="progressbar"
          aria-label={`${name} is being opened`}
          aria-valuemin={0}
          aria-valuemax={100}
          aria-valuenow={Math.round(state.part * 100)}
          aria-valuetext={state.doing}
          className="relative flex-1 flex items-center h-9 px-3 rounded-xl border border-line bg-raise overflow-hidden"
        >
          <span
            className="absolute inset-y-0 left-0 bg-sun/30"
            style={{ width: `${state.part * 100}%` }}
          />
          <span dir="auto" className="relative truncate">
            {state.doing}…
          </span>
        </span>
        <Button onClick={stop}>Stop</Button>
      </div>
      <p className="mt-3 text-faint text-[13px]">
        Stopped, nothing of it is kept. The show that is open goes on meanwhile.
      </p>
    </Dialog>
  );
}
