import { useEffect, useState } from "react";
import { flushSync } from "react-dom";
import { useSearch } from "wouter";
import { getSheets, paperAddress } from "../../data/http";
import type { Sheet } from "../../data/types";
import { useShow, useText } from "../../data/use";
import { ViewHead } from "../../frame/ViewHead";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";

import { Tabs } from "../../ui/Tabs";
import { Page } from "./Page";
import { PdfButton } from "./PdfButton";

const LINK =
  "inline-flex items-center h-8 px-3 rounded-xl border border-line bg-raise hover:border-edge";
const SCOPES = [
  ["one", "this sheet"],
  ["all", "all sheets"],
] as const;

/** Sheets for the people who plug, patch, play and listen: on screen as they will be printed. */
export function PaperView() {
  const showId = useShow((state) => state.desk!.show.id);
  const revision = useShow((state) => state.revision);
  const name = useText("show/name");
  const [sheets, setSheets] = useState<Sheet[]>([]);
  const asked = new URLSearchParams(useSearch()).get("sheet"); // the view that one came from
  const [chosen, setChosen] = useState(asked ?? "input-list");
  const [scope, setScope] = useState<"one" | "all">("one");
  const [fault, setFault] = useState("");
  useEffect(() => {
    let current = true;
    const timer = setTimeout(() => {
      getSheets(showId, chosen).then(
        (found) => {
          if (current) setSheets(found);
          setFault("");
        },
        (error: Error) => {
          if (!current) return;
          setFault(error.message);
          setChosen("input-list"); // the mix of a sheet may be gone
        },
      );
    }, 150);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [showId, revision, chosen]);

  const print = async () => {
    try {
      if (scope === "all") {
        const all = await getSheets(showId);
        flushSync(() => setSheets(all));
      }
      window.print();
    } catch (error) {
      setFault((error as Error).message);
    }
  };

  const lists = sheets.filter((sheet) => !sheet.key.startsWith("mix-"));
  const mixes = sheets.filter((sheet) => sheet.key.startsWith("mix-"));
  const key = scope === "all" ? "all" : chosen;
  return (
    <>
      <div className="screen-only">
        <ViewHead title="Print or export">
          <span className="flex-1" />
          <Choice
            boxed
            label="What to take"
            className="!h-8 !px-2"
            value={scope}
            options={SCOPES}
            onChange={(taken) => setScope(taken as "one" | "all")}
          />
          {scope === "one" && (
            <a className={LINK} href={paperAddress(showId, `${chosen}.csv`)}>
              CSV
            </a>
          )}
          <a className={LINK} href={paperAddress(showId, `${key}.xlsx`)}>
            Spreadsheet
          </a>
          <PdfButton key={key} showId={showId} sheet={key} onFault={setFault} />
          <Button tone="main" onClick={() => void print()}>
            Print
          </Button>
        </ViewHead>
        <div className="flex items-center gap-2 pb-2 flex-wrap">
          <Tabs
            label="Sheets"
            tabs={lists.map((sheet) => ({ key: sheet.key, word: sheet.title, note: "" }))}
            chosen={chosen}
            onChoose={setChosen}
          />
          {mixes.length > 0 && (
            <Choice
              boxed
              label="Mix sheet"
              className={`!h-8 !px-2 max-w-64 ${chosen.startsWith("mix-") ? "!border-sun" : ""}`}
              value={chosen.startsWith("mix-") ? chosen : ""}
              options={[
                ["", "Mix sheets…"],
                ...mixes.map((sheet) => [sheet.key, sheet.title] as const),
              ]}
              onChange={(mix) => setChosen(mix || "input-list")}
            />
          )}
        </div>
        {fault && (
          <p role="alert" className="text-coral pb-2">
            {fault}
          </p>
        )}
      </div>
      <div
        className="scrolls flex-1 min-h-0 short:min-h-72"
        tabIndex={0}
        role="region"
        aria-label="The sheet"
      >
        {sheets
          .filter((sheet) => sheet.filled && (sheet.key === chosen || scope === "all"))
          .map((sheet) => (
            <Page key={sheet.key} sheet={sheet} name={name} hidden={sheet.key !== chosen} />
          ))}
      </div>
    </>
  );
}
