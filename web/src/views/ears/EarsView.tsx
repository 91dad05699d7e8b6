import { useCallback, useEffect, useMemo, useState } from "react";
import { Link as RouteLink, useLocation, useParams } from "wouter";
import { inWords, numberOf } from "../../data/address";
import { getLinks, makeAllLinks } from "../../data/http";
import { notify } from "../../data/show";
import type { EarLink, EarRow as EarRowOf, NewCode, NewLink } from "../../data/types";
import { useLink, useShow } from "../../data/use";
import { ViewHead } from "../../frame/ViewHead";
import { Button } from "../../ui/Button";
import { Empty } from "../../ui/Panel";
import { runs } from "../../ui/ranges";
import { useRows } from "../../ui/reach";
import { Toolbar } from "../../ui/Toolbar";
import { Waiting } from "../../ui/Waiting";
import { pageOf } from "../mixes/addresses";
import { StartDialog } from "../mixes/StartDialog";
import { BesideDialog } from "./BesideDialog";
import { EarDetail } from "./EarDetail";
import { EarRow } from "./EarRow";
import { JoinDialog } from "./JoinDialog";
import { LinkDialog } from "./LinkDialog";
import { LockDialog } from "./LockDialog";

const LOOK_MS = 10_000;

/** Every mix for ears and wedges, the worst first: how whoever hears it stands in it, and what is wrong. */
export function EarsView() {
  const link = useLink();
  const ears = useShow((state) => state.ears);
  const params = useParams<{ mix?: string }>();
  const [, navigate] = useLocation();
  const [dialog, setDialog] = useState<
    | { of: "start" | "lock"; mixes: string }
    | { of: "join" }
    | { of: "links" }
    | { of: "beside"; one: string }
    | null
  >(null);
  useEffect(() => {
    link.watch({ ears: true });
    return () => link.watch({ ears: false });
  }, [link]);
  const show = useShow((state) => state.desk!.show.id);
  // who opens a phone or leaves is told as all who are here
  const here = useShow((state) => state.others);
  const [links, setLinks] = useState<readonly EarLink[]>([]);
  const [made, setMade] = useState<readonly NewLink[]>([]);
  const [codes, setCodes] = useState<readonly NewCode[]>([]);
  const look = useCallback(
    () => void getLinks(show).then(setLinks, () => undefined), // looked at again with the next
    [show],
  );
  useEffect(() => {
    if (here) look();
    const again = setInterval(look, LOOK_MS); // what phones moved last
    return () => clearInterval(again);
  }, [look, here]);
  const onLinks = (new_: readonly NewLink[]) => {
    setMade(new_);
    look();
  };
  const calls = useShow((state) => state.calls);
  const rows = useMemo(() => {
    const isCalling = (row: EarRowOf) => calls.some((call) => call.mix === row.mix);
    const [first, rest] = [true, false].map((on) => ears?.rows.filter((r) => isCalling(r) === on));
    return [...(first ?? []), ...(rest ?? [])]; // who calls waits for somebody
  }, [ears, calls]);
  // the first ones are made by one press; later it is to be seen who has one
  const lacking = links.some((one) => !one.ended) ? 0 : rows.length;
  const makeAll = () =>
    void makeAllLinks(show).then(onLinks, (error: Error) => notify(error.message));
  const reach = useRows(rows.map((row) => row.mix));
  const chosen = params.mix ? `mix/${params.mix}` : null;
  const all = rows.map((row) => row.name).join(", ");
  const step = (by: string) => void link.do({ action: "trim_ears", step: by });
  return (
    <>
      <ViewHead title="Ears and wedges">
        {rows.length > 0 && (
          <Toolbar
            label="For all ears and wedges"
            className="gap-1.5"
            tools={{
              start: (
                <Button
                  tone="main"
                  onClick={() =>
                    setDialog({
                      of: "start",
                      mixes: `mix ${runs(rows.map((row) => numberOf(row.mix)).sort((a, b) => a - b))}`,
                    })
                  }
                >
                  Start mixes…
                </Button>
              ),
              down: (
                <Button aria-label="All ears 1 dB down" onClick={() => step("down 1")}>
                  All ears −1
                </Button>
              ),
              up: (
                <Button aria-label="All ears 1 dB up" onClick={() => step("up 1")}>
                  +1
                </Button>
              ),
              join: <Button onClick={() => setDialog({ of: "join" })}>Join later…</Button>,
              links: (
                <Button
                  title="Personal links by which phones open these mixes"
                  onClick={() => (lacking > 0 ? makeAll() : setDialog({ of: "links" }))}
                >
                  {lacking > 0 ? `Make ${lacking} ${lacking === 1 ? "link" : "links"}…` : "Links…"}
                </Button>
              ),
              take: (
                <Button
                  title={`What ${all} are now is what start over leads back to`}
                  onClick={() => void link.do({ action: "take_starts" }, { quiet: false })}
                >
                  As it is now is the start
                </Button>
              ),
              lock: ears?.locked ? (
                <Button
                  tone="danger"
                  onClick={() => void link.do({ action: "lock_mixes", locked: false })}
                >
                  Unlock all
                </Button>
              ) : (
                <Button onClick={() => setDialog({ of: "lock", mixes: "" })}>Lock all…</Button>
              ),
            }}
          />
        )}
      </ViewHead>
      {ears?.locked && (
        <p
          role="status"
          className="mb-2 px-3 py-2 rounded-xl border border-iris bg-floor shrink-0 break-words"
        >
          <strong className="text-iris">All phones are locked.</strong> {ears.lock_reason}
        </p>
      )}
      {!ears ? (
        <Waiting />
      ) : rows.length === 0 ? (
        <Empty title="No mix for ears or wedges yet">
          <p>
            Make a mix for each performer: here stands how each hears themselves over the rest, what
            they lack, and how loud it is.
          </p>
          <RouteLink to="/mixes?new=mix" className="text-sun-text underline">
            Make mixes for performers
          </RouteLink>
        </Empty>
      ) : (
        <div
          role="region"
          aria-label="Ears and wedges, the worst first"
          className="scrolls flex-1 min-h-0 pr-1"
          {...reach.hand}
        >
          <div className="row-ear row-heads text-[12px] text-faint pb-1.5">
            <span />
            <span>Worst first</span>
            <span>Themselves over the rest</span>
            <span>Missing</span>
            <span>Loudest three, dBFS</span>
            <span>Level, ceiling, dBFS</span>
            <span />
          </div>
          <ul aria-label="Mixes">
            {rows.map((row) => (
              <li key={row.mix} data-row={row.mix} data-subject={row.mix}>
                <EarRow
                  row={row}
                  rows={reach}
                  phone={phoneOf(links, row.mix)}
                  movedAt={movedAt(links, row.mix)}
                  open={row.mix === chosen}
                  onOpen={() => navigate(row.mix === chosen ? "/ears" : `/ears/${pageOf(row.mix)}`)}
                />
                {row.mix === chosen && (
                  <EarDetail
                    row={row}
                    onStart={() => setDialog({ of: "start", mixes: inWords(row.mix) })}
                    onLock={() => setDialog({ of: "lock", mixes: inWords(row.mix) })}
                    onBeside={() => setDialog({ of: "beside", one: row.mix })}
                    links={links}
                    onLinks={onLinks}
                    onCodes={setCodes}
                  />
                )}
              </li>
            ))}
          </ul>
          <p className="py-2 text-[13px] text-faint flex gap-x-4 flex-wrap">
            <span>
              <span
                aria-hidden
                className="inline-block w-0.5 h-3.5 bg-sun align-[-2px] mr-1.5 ml-0.5"
              />
              the aim
            </span>
            <span>
              <span aria-hidden className="inline-block w-1 h-3.5 bg-coral align-[-2px] mr-1.5" />
              the ceiling, as a level
            </span>
            <span>Nobody's ears change when you listen. Levels are those that lines expect.</span>
          </p>
        </div>
      )}
      <StartDialog
        mixes={dialog?.of === "start" ? dialog.mixes : ""}
        open={dialog?.of === "start"}
        onOpenChange={() => setDialog(null)}
      />
      <LockDialog
        mixes={dialog?.of === "lock" ? dialog.mixes : ""}
        open={dialog?.of === "lock"}
        onOpenChange={() => setDialog(null)}
      />
      <JoinDialog open={dialog?.of === "join"} onOpenChange={() => setDialog(null)} />
      <LinkDialog
        open={dialog?.of === "links" || made.length + codes.length > 0}
        made={made}
        codes={codes}
        links={links}
        mixes={rows.map((row) => [row.mix, row.name] as const)}
        onMade={onLinks}
        onCodes={setCodes}
        onClose={() => {
          setMade([]);
          setCodes([]);
          setDialog(null);
        }}
      />
      <BesideDialog
        one={dialog?.of === "beside" ? dialog.one : null}
        onClose={() => setDialog(null)}
      />
    </>
  );
}

/** When a phone of a mix moved something last; "": none ever did. */
const movedAt = (links: readonly EarLink[], mix: string): string =>
  links
    .filter((link) => link.mixes.includes(mix))
    .reduce((last, link) => ((link.moved_at ?? "") > last ? link.moved_at! : last), "");

/** What is known of the phones of a mix, in a word. */
function phoneOf(links: readonly EarLink[], mix: string): "open" | "not open" | "no link" {
  const own = links.filter((link) => !link.ended && link.mixes.includes(mix));
  if (own.length === 0) return "no link";
  return own.some((link) => link.open > 0) ? "open" : "not open";
}
