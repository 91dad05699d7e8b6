import { useEffect, useState } from "react";
import { Link as RouteLink } from "wouter";
import type { CheckEntry, MicCheck } from "../../data/types";
import { select, useLink, useShow } from "../../data/use";
import { useViewKeys } from "../../frame/useViewKeys";
import { ViewHead } from "../../frame/ViewHead";
import { Choice } from "../../ui/Choice";
import { Deliberate } from "../../ui/Deliberate";
import { Empty } from "../../ui/Panel";
import { Waiting } from "../../ui/Waiting";
import { CheckedCard } from "./CheckedCard";
import { EntryList } from "./EntryList";

type Order = MicCheck["order"];
type Step = "next" | "skip" | "back" | "drop" | "finish";

const ORDERS: readonly (readonly [Order, string])[] = [
  ["list", "in the parts' order"],
  ["arrival", "as they arrive"],
  ["channel", "by channel"],
];

/** One performer after another: their fitting on, adjusted, kept when the next one comes. */
export function MicCheckView() {
  const link = useLink();
  const [order, setOrder] = useState<Order>("list");
  const check = useShow((state) => state.micCheck);
  const entries = check?.entries ?? [];
  const own = entries.find((one) => one.entry === check?.yours) ?? null;
  const next = entries.find((one) => one.entry === check?.next) ?? null;
  const [fed, setFed] = useState(false);
  useEffect(() => {
    link.watch({ mic_check: order });
    return () => link.watch({ mic_check: null });
  }, [link, order]);
  useEffect(() => {
    link.watch({ levels: true, strip: own?.channel ?? null });
    return () => link.watch({ levels: false, strip: null });
  }, [link, own?.channel]);
  const channel = own?.channel;
  useEffect(() => {
    if (channel) select(channel);
  }, [channel]);
  // the tone goes along to whoever is next, and ends with the view
  const line = own?.line ?? null;
  useEffect(() => {
    if (!fed || line === null) return;
    link.feed(line, "tone");
    return () => link.feed(line, "nothing");
  }, [link, fed, line]);

  // it says whom it leaves: of two quick presses the second leaves nobody unseen
  const step = (which: Step) =>
    void link.do({ action: "check_step", step: which, order, leaves: own?.entry ?? "" });
  const once = (act: () => void) => (event: KeyboardEvent) => {
    if (!event.repeat) act();
  };
  const ofOwn = (which: Step) => once(() => own && step(which));
  useViewKeys("miccheck", {
    next: once(() => step("next")),
    skip: ofOwn("skip"),
    back: ofOwn("back"),
    drop: ofOwn("drop"),
    tone: once(() => own && setFed((was) => !was)),
  });

  if (!check)
    return (
      <>
        <ViewHead title="Mic check" />
        <Waiting />
      </>
    );
  return (
    <>
      <ViewHead title="Mic check">
        <Counts entries={entries} />
        <span className="flex-1" />
        <Choice
          boxed
          label="Order"
          className="h-9 coarse:h-11"
          value={order}
          options={ORDERS}
          onChange={(value) => setOrder(value as Order)}
        />
        {entries.some((one) => one.phase !== "waiting") && (
          <Deliberate
            says="Let everybody wait again"
            short="Begin again"
            onDone={() => void link.do({ action: "check_again" }, { quiet: false })}
          />
        )}
      </ViewHead>
      {entries.length === 0 ? (
        <Empty title="Nobody to check yet">
          <p>Mic check goes by who plays tonight: parts with a channel, and a cast for them.</p>
          <RouteLink to="/cast" className="text-sun-text underline">
            Make parts and choose tonight's cast, in Cast
          </RouteLink>
        </Empty>
      ) : (
        <div className="relative flex-1 min-h-0 scrolls grid grid-cols-[minmax(0,1fr)] gap-3 md:overflow-hidden md:grid-rows-1 md:grid-cols-[minmax(0,1fr)_210px] xl:grid-cols-[minmax(0,1fr)_320px]">
          <CheckedCard
            own={own}
            next={next}
            target={check.target_dbfs}
            fed={fed}
            onFeed={() => setFed(!fed)}
            onStep={step}
          />
          <EntryList entries={entries} yours={own?.entry ?? null} />
        </div>
      )}
    </>
  );
}

function Counts({ entries }: { entries: readonly CheckEntry[] }) {
  const count = (phase: CheckEntry["phase"]) => entries.filter((one) => one.phase === phase).length;
  const skipped = count("skipped");
  return (
    <span className="text-soft whitespace-nowrap" role="status">
      {count("done")} done, {skipped > 0 && `${skipped} skipped, `}
      {count("waiting")} to go
    </span>
  );
}
