import { useState } from "react";
import { useLocation } from "wouter";
import { thingOf } from "../../data/address";
import { takeRemedy } from "../../data/remedy";
import type { Alike, Finding } from "../../data/types";
import { useLink, useShow } from "../../data/use";
import { Button } from "../../ui/Button";
import { Deliberate } from "../../ui/Deliberate";
import { Empty } from "../../ui/Panel";
import { Waiting } from "../../ui/Waiting";
import { pageOf } from "../mixes/addresses";

/** What Ombrel noticed without being asked, each with the one action that mends it. */
export function Findings() {
  const findings = useShow((state) => state.findings);
  const noticed = useShow((state) => state.noticed);
  const wrong = findings.filter((finding) => finding.tone === "settle");
  const notes = findings.filter((finding) => finding.tone === "note");
  if (!noticed) return <Waiting />;
  if (findings.length === 0)
    return (
      <Empty title="Nothing is wrong">
        <p>Ombrel found nothing wrong with the show. It keeps looking as you work.</p>
      </Empty>
    );
  return (
    <div className="scrolls flex-1 min-h-0 flex flex-col gap-4 pr-1">
      <Group title="To mend" findings={wrong} />
      <Group title="Notes: they may be meant" findings={notes} />
    </div>
  );
}

function Group({ title, findings }: { title: string; findings: readonly Finding[] }) {
  if (findings.length === 0) return null;
  return (
    <section aria-label={title}>
      <h2 className="text-soft pb-1.5">
        {title} <span className="text-faint">{findings.length}</span>
      </h2>
      <ul className="flex flex-col gap-[3px]">
        {byKind(findings).map((some) => (
          <Kind key={some[0]!.rule} findings={some} />
        ))}
      </ul>
    </section>
  );
}

/** Findings of one rule after another, in the core's order. */
function byKind(findings: readonly Finding[]): readonly (readonly Finding[])[] {
  const kinds = new Map<string, Finding[]>();
  for (const finding of findings)
    kinds.set(finding.rule, [...(kinds.get(finding.rule) ?? []), finding]);
  return [...kinds.values()];
}

/** Findings of one rule: so many that they are told as one open when that is pressed. */
function Kind({ findings }: { findings: readonly Finding[] }) {
  const { rule, tone } = findings[0]!;
  const head = useShow((state) =>
    state.alike.find((one) => one.rule === rule && one.tone === tone),
  );
  const [open, setOpen] = useState(false);
  const rows = findings.map((finding) => (
    <Row key={`${finding.about} ${finding.says}`} finding={finding} />
  ));
  if (!head) return rows;
  return (
    <>
      <Head head={head} open={open} onOpen={setOpen} />
      {open && (
        <li>
          <ul aria-label={head.says} className="flex flex-col gap-[3px] pl-6">
            {rows}
          </ul>
        </li>
      )}
    </>
  );
}

function Head({
  head,
  open,
  onOpen,
}: {
  head: Alike;
  open: boolean;
  onOpen: (open: boolean) => void;
}) {
  const link = useLink();
  const remedy = head.remedy;
  const mend = () => remedy && void takeRemedy(link, remedy);
  return (
    <li
      data-alike={head.rule}
      className="flex items-center gap-x-3 gap-y-1.5 phone:flex-wrap min-h-11 rounded-lg bg-floor border border-line px-3 py-1.5"
    >
      <Mark tone={head.tone} />
      <span className="flex-1 min-w-0 phone:min-w-[calc(100%-40px)] break-words font-semibold">
        {head.says}
      </span>
      <Button small tone="quiet" aria-expanded={open} onClick={() => onOpen(!open)}>
        {open ? "Fold" : "Which"}
      </Button>
      {remedy &&
        (head.careful ? (
          <Deliberate says={remedy.says} onDone={mend} onArmed={() => onOpen(true)} />
        ) : (
          <Button small onClick={mend}>
            {remedy.says}
          </Button>
        ))}
    </li>
  );
}

const Mark = ({ tone }: { tone: Finding["tone"] }) => (
  <span
    aria-hidden
    className={`w-2.5 h-2.5 shrink-0 ${tone === "settle" ? "bg-coral rotate-45" : "border-2 border-soft rounded-full"}`}
  />
);

const RULERS: Record<string, string> = { dca: "dcas", mute_group: "mutes", gang: "gangs" };

/** Where to go to look at what a finding is about. */
function placeOf(about: string): string {
  const { kind, number } = thingOf(about);
  if (kind === "line") return `/lines?line=${number}`;
  if (kind === "channel") return `/strip/${about}`;
  if (kind === "scene") return `/scenes/${number}`;
  if (RULERS[kind]) return `/${RULERS[kind]}/${number}`;
  if (kind === "effects" || kind === "engine") return "/effects";
  if (kind === "lift") return "/lifts";
  if (kind === "wish") return "/tracks";
  if (kind === "plan") return "/tracks/back";
  if (kind === "sharing") return "/sharing";
  if (kind === "promise") return "/wrong/promises";
  if (kind === "output") return "/outputs";
  if (kind === "input") return "/patch";
  if (/^(part|cast|performer|fitting)$/.test(kind)) return "/cast";
  return `/mixes/${pageOf(about)}`;
}

function Row({ finding }: { finding: Finding }) {
  const link = useLink();
  const [, navigate] = useLocation();
  const remedy = finding.remedy;
  const mend = () => remedy && void takeRemedy(link, remedy);
  return (
    <li
      data-rule={finding.rule}
      data-subject={finding.about}
      className="flex items-center gap-x-3 gap-y-1.5 phone:flex-wrap min-h-11 rounded-lg bg-floor border border-line px-3 py-1.5"
    >
      <Mark tone={finding.tone} />
      <span className="flex-1 min-w-0 phone:min-w-[calc(100%-40px)] break-words">
        {finding.says}
      </span>
      <Button small tone="quiet" onClick={() => navigate(placeOf(finding.about))}>
        Look
      </Button>
      {remedy &&
        (finding.careful ? (
          <Deliberate says={remedy.says} onDone={mend} />
        ) : (
          <Button small onClick={mend}>
            {remedy.says}
          </Button>
        ))}
    </li>
  );
}
