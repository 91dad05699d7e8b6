import type { CueRow } from "../../data/types";
import { useLink } from "../../data/use";
import { Button } from "../../ui/Button";
import { Empty } from "../../ui/Panel";
import { InRow, useRows } from "../../ui/reach";
import { TypedField } from "../../ui/TypedField";

/** All cues, by what comes. */
export function CueTable({ cues }: { cues: readonly CueRow[] }) {
  const rows = useRows(cues.map((one) => one.cue));
  if (cues.length === 0)
    return (
      <Empty title="No cue yet">
        <p>
          Type what comes and what it does, above; or send it once from the machine and take it on
          the right. Ombrel's own addresses work without a list: /ombrel/go, /ombrel/scene 12.
        </p>
      </Empty>
    );
  return (
    <section aria-label="Cues" className="min-w-0 flex flex-col">
      <div aria-hidden className="row-cue row-heads text-[12px] text-faint px-2 pb-1">
        <span className="pl-1.5">What comes</span>
        <span className="pl-1.5">What it does</span>
        <span />
      </div>
      <ul {...rows.hand} className="flex flex-col gap-[3px]">
        {cues.map((cue) => (
          <InRow key={cue.cue} of={cue.cue} rows={rows}>
            <Row cue={cue} />
          </InRow>
        ))}
      </ul>
    </section>
  );
}

function Row({ cue }: { cue: CueRow }) {
  const link = useLink();
  const set = (field: "comes" | "does", text: string) =>
    void link.do({ action: "set_cue", cue: cue.cue, [field]: text });
  return (
    <li
      data-row={cue.cue}
      data-cue={cue.cue}
      className={`row-cue rounded-md px-2 min-h-8 bg-card ${cue.wrong ? "outline outline-1 outline-coral" : ""}`}
    >
      <TypedField
        area="comes"
        label={`What comes for ${cue.does}`}
        value={cue.comes}
        onCommit={(text) => set("comes", text)}
        maxLength={200}
        data={{ "data-column": "comes" }}
        className="coarse:h-11 tabular-nums"
      />
      <TypedField
        area="does"
        label={`What ${cue.comes} does`}
        value={cue.does}
        onCommit={(text) => set("does", text)}
        maxLength={300}
        missing={cue.wrong !== ""}
        data={{ "data-column": "does" }}
        className={`coarse:h-11 ${cue.kind === "scene" ? "text-iris" : ""}`}
      />
      <Button
        small
        tone="quiet"
        aria-label={`Remove the cue ${cue.comes}`}
        title="Take it off the list"
        onClick={() => void link.do({ action: "remove_cues", cues: [cue.cue] })}
      >
        ×
      </Button>
      {cue.wrong && (
        <p className="text-coral text-[13px] px-1.5 pb-1" style={{ gridArea: "wrong" }}>
          {cue.wrong}
        </p>
      )}
    </li>
  );
}
