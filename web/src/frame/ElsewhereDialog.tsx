import { useEffect, useState } from "react";
import { isOpen, lookElsewhere, takeElsewhere } from "../data/http";
import { notify } from "../data/show";
import type { ElsewhereReply } from "../data/types";
import { useShow } from "../data/use";
import { Button } from "../ui/Button";
import { Choice } from "../ui/Choice";
import { Dialog } from "../ui/Dialog";
import { Waiting } from "../ui/Waiting";

interface Props {
  show: { id: string; name: string };
  open: boolean;
  onOpenChange: (open: boolean) => void;
}

const TONE = { heard: "text-coral", aside: "text-paper", back: "text-sea" } as const;

/** A show copied or moved onto another desk: what does not fit is told first, box by box, and kept aside. */
export function ElsewhereDialog({ show, open, onOpenChange }: Props) {
  return (
    <Dialog
      title="Onto another desk"
      about={show.name}
      open={open}
      onOpenChange={onOpenChange}
      wide
    >
      <Elsewhere show={show} />
    </Dialog>
  );
}

function Elsewhere({ show }: { show: Props["show"] }) {
  const desks = useShow((state) => state.me?.desks ?? NONE);
  const [desk, setDesk] = useState("");
  const [boxes, setBoxes] = useState<Readonly<Record<string, string>> | null>(null);
  const [found, setFound] = useState<ElsewhereReply | null>(null);
  const [fault, setFault] = useState("");
  const [others, setOthers] = useState(""); // who has it open, asked before it is moved
  const [taking, setTaking] = useState(false);
  useEffect(() => {
    if (!desk) return;
    let left = false;
    lookElsewhere(show.id, { desk, boxes }).then(
      (reply) => {
        if (left) return;
        setFound(reply);
        setFault("");
      },
      (error: Error) => !left && setFault(error.message),
    );
    return () => {
      left = true;
    };
  }, [show.id, desk, boxes]);
  const take = async (move: boolean, sure = false) => {
    setTaking(true);
    setOthers("");
    try {
      const made = await takeElsewhere(show.id, { desk, boxes, move, sure });
      location.assign(`/hears?show=${made.id}`);
    } catch (error) {
      if (isOpen(error)) setOthers(error.message);
      else notify((error as Error).message, "refused");
    } finally {
      setTaking(false);
    }
  };
  const here = found && found.desk === desks.find((one) => one.key === desk)?.name ? found : null;
  return (
    <div className="flex flex-col gap-3 pt-3 min-h-0">
      <div className="flex items-center gap-2 flex-wrap">
        <span className="text-soft">Desk</span>
        <Choice
          boxed
          label="The other desk"
          value={desk}
          options={[["", "choose one"], ...desks.map((one) => [one.key, one.name] as const)]}
          onChange={(key) => {
            setDesk(key);
            setBoxes(null);
            setFault("");
          }}
        />
      </div>
      {!desk && (
        <p className="text-soft">
          What fits goes along; what does not is kept aside with the show, in its file too, and is
          back on a desk where it fits.
        </p>
      )}
      {fault && (
        <p role="alert" className="text-coral">
          {fault}
        </p>
      )}
      {desk && !here && !fault && <Waiting />}
      {here && (
        <>
          <div
            role="group"
            aria-label="Boxes"
            className="grid grid-cols-[repeat(auto-fill,minmax(17rem,1fr))] gap-x-4 gap-y-1.5"
          >
            {here.boxes.map((box) => (
              <div key={box.key} className="flex items-center gap-2">
                <span dir="auto" className="flex-1 min-w-0 truncate">
                  {box.name}
                </span>
                <span className="text-faint">is</span>
                <Choice
                  boxed
                  label={`What ${box.name} is there`}
                  value={box.to}
                  options={[
                    ["", "none"],
                    ...here.choices.map((one) => [one.key, one.name] as const),
                  ]}
                  className="w-44"
                  onChange={(to) => setBoxes(given(here, box.key, to))}
                />
              </div>
            ))}
          </div>
          <div
            role="group"
            aria-label="What would not fit"
            tabIndex={0}
            className="scrolls max-h-[46vh]"
          >
            <ul aria-label="What it means" className="flex flex-col gap-1">
              {here.told.length === 0 && (
                <li className="text-sea">All of it fits: nothing is kept aside.</li>
              )}
              {here.told.map((one) => (
                <li
                  key={one.says}
                  className={`border-l-[3px] pl-2 break-words ${TONE[one.tone]} ${one.tone === "heard" ? "border-coral" : "border-line"}`}
                >
                  {one.says}
                </li>
              ))}
            </ul>
          </div>
          {others && (
            <p role="alert" className="flex items-center gap-2 flex-wrap text-coral">
              <span className="flex-1 min-w-60">{others}</span>
              <Button small tone="danger" onClick={() => void take(true, true)}>
                Move it all the same
              </Button>
            </p>
          )}
          <div className="flex items-center gap-2 flex-wrap">
            <Button tone="main" disabled={taking} onClick={() => void take(false)}>
              Copy it onto {here.desk}
            </Button>
            <Button disabled={taking} onClick={() => void take(true)}>
              Move it there
            </Button>
            <span className="text-faint text-[13px] flex-1 min-w-60">
              Moved, the show as it is now leaves the list with its history, and can be brought back
              in Shows.
            </span>
          </div>
        </>
      )}
    </div>
  );
}

const NONE: readonly { key: string; name: string }[] = [];

/** The boxes with one given to another: who had it has none. */
function given(found: ElsewhereReply, key: string, to: string): Record<string, string> {
  return Object.fromEntries(
    found.boxes.map((box) => [box.key, box.key === key ? to : to && box.to === to ? "" : box.to]),
  );
}
