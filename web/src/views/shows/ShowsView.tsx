import { useCallback, useEffect, useState } from "react";
import { bringBackShow, copyShow, getShows, isOpen, removeShow, renameShow } from "../../data/http";
import { notify } from "../../data/show";
import type { ShowCard } from "../../data/types";
import { useShow } from "../../data/use";
import { whenText } from "../../data/words";
import { ElsewhereDialog } from "../../frame/ElsewhereDialog";
import { NewShowDialog } from "../../frame/NewShowDialog";
import { ViewHead } from "../../frame/ViewHead";
import { Button } from "../../ui/Button";
import { Empty } from "../../ui/Panel";
import { TypedField } from "../../ui/TypedField";
import { BackupHint } from "../account/BackupHint";
import { ROLES } from "../crew/roles";

/** All shows: open, new, rename, copy, remove and bring back. */
export function ShowsView() {
  const [cards, setCards] = useState<readonly ShowCard[] | null>(null);
  const [making, setMaking] = useState(false);
  const [fault, setFault] = useState("");
  const look = useCallback(
    () => getShows().then(setCards, (error: Error) => setFault(error.message)),
    [],
  );
  useEffect(() => void look(), [look]);
  const act = (doing: Promise<unknown>, says: string) =>
    doing.then(
      () => {
        setFault("");
        notify(says);
        return look();
      },
      (error: Error) => setFault(error.message),
    );
  const kept = cards?.filter((card) => card.removed_at === null) ?? [];
  const removed = cards?.filter((card) => card.removed_at !== null) ?? [];
  return (
    <>
      <ViewHead title="Shows">
        <Button tone="main" onClick={() => setMaking(true)}>
          New show…
        </Button>
        <span className="text-faint ml-auto">
          {cards && (kept.length === 1 ? "1 show" : `${kept.length} shows`)}
        </span>
      </ViewHead>
      <NewShowDialog open={making} onOpenChange={setMaking} />
      {fault && (
        <p role="alert" className="text-coral pb-2">
          {fault}
        </p>
      )}
      <BackupHint />
      {cards && kept.length === 0 && (
        <Empty title="No show yet">
          <p>
            Make one on a desk of your choice; it opens on Lines, where the band's list goes in.
            Shows of others are here once they share them with you.
          </p>
        </Empty>
      )}
      <div
        className="scrolls flex-1 min-h-0 short:min-h-60"
        tabIndex={0}
        role="region"
        aria-label="All shows"
      >
        <ul className="flex flex-col gap-1">
          {kept.map((card) => (
            <Row key={card.id} card={card} onAct={act} />
          ))}
        </ul>
        {removed.length > 0 && (
          <>
            <h2 className="text-soft pt-5 pb-1.5">Removed; nothing of them is lost</h2>
            <ul className="flex flex-col gap-1">
              {removed.map((card) => (
                <li
                  key={card.id}
                  className="flex items-center gap-3 min-h-11 rounded-lg border border-line px-3"
                >
                  <span dir="auto" className="flex-1 min-w-0 truncate text-soft">
                    {card.name}
                  </span>
                  <span className="text-faint text-[13px] whitespace-nowrap phone:hidden">
                    removed {whenText(card.removed_at!)}
                  </span>
                  <Button
                    small
                    aria-label={`Bring back, ${card.name}`}
                    onClick={() => void act(bringBackShow(card.id), `${card.name} is back`)}
                  >
                    Bring back
                  </Button>
                </li>
              ))}
            </ul>
          </>
        )}
      </div>
    </>
  );
}

function Row({
  card,
  onAct,
}: {
  card: ShowCard;
  onAct: (doing: Promise<unknown>, says: string) => Promise<unknown>;
}) {
  const here = useShow((state) => state.desk?.show.id === card.id);
  const changed = card.changed_at
    ? `changed ${whenText(card.changed_at)}${card.changed_by && ` by ${card.changed_by}`}`
    : `made ${whenText(card.made_at)}, blank`;
  const [open, setOpen] = useState(""); // who has it open, in words: asked before it is removed
  const [moving, setMoving] = useState(false);
  const all = card.role === "owner" || card.role === "engineer";
  const remove = async (sure: boolean) => {
    setOpen("");
    const removing = removeShow(card.id, sure);
    const others = await removing.then(
      () => "",
      (error: unknown) => (isOpen(error) ? error.message : ""),
    );
    if (others) {
      setOpen(others);
      return;
    }
    await onAct(removing, `${card.name} removed; it can be brought back below`);
    // the show that one is in is gone from here: another, or none, is opened
    if (here) location.assign("/shows");
  };
  return (
    <li
      data-show={card.id}
      className={`flex items-center gap-x-3 gap-y-1 flex-wrap min-h-14 rounded-xl border px-3 py-1.5 ${here ? "border-sun bg-card" : "border-line bg-floor"}`}
    >
      <span className="flex-1 min-w-[min(100%,240px)]">
        {all ? (
          <TypedField
            label={`Name of the show ${card.name}`}
            value={card.name}
            maxLength={60}
            className="w-full font-semibold text-[15px] -ml-1.5"
            onCommit={(name) => void onAct(renameShow(card.id, name), `Called ${name}`)}
          />
        ) : (
          <span dir="auto" className="block font-semibold text-[15px] truncate">
            {card.name}
          </span>
        )}
        <span dir="auto" className="block text-[13px] text-faint truncate">
          {card.role !== "owner" && `${ROLES[card.role]}${card.owner && ` · of ${card.owner}`} · `}
          {card.desk} · {changed}
        </span>
      </span>
      {here ? (
        <span className="text-sun-text font-semibold px-2">open here</span>
      ) : (
        <Button
          aria-label={`Open, ${card.name}`}
          onClick={() =>
            location.assign(
              card.role === "volunteer" ? `/ride/${card.id}` : `/hears?show=${card.id}`,
            )
          }
        >
          Open
        </Button>
      )}
      {all && (
        <>
          <Button
            small
            aria-label={`Copy, ${card.name}`}
            onClick={() => void onAct(copyShow(card.id), `${card.name} copied`)}
          >
            Copy
          </Button>
          <Button small aria-label={`Other desk…, ${card.name}`} onClick={() => setMoving(true)}>
            Other desk…
          </Button>
          {moving && <ElsewhereDialog show={card} open onOpenChange={setMoving} />}
          <Button
            small
            tone="danger"
            aria-label={`Remove, ${card.name}`}
            onClick={() => void remove(false)}
          >
            Remove
          </Button>
        </>
      )}
      {open && (
        <span role="alert" className="basis-full flex items-center gap-2 flex-wrap pb-1">
          <span className="flex-1 min-w-60 text-coral">{open}</span>
          <Button small tone="danger" onClick={() => void remove(true)}>
            Remove all the same
          </Button>
          <Button small onClick={() => setOpen("")}>
            Leave it
          </Button>
        </span>
      )}
    </li>
  );
}
