import { useEffect, useState } from "react";
import { getSheets, paperAddress } from "../../data/http";
import { useShow, useText } from "../../data/use";
import type { Sheet } from "../../data/types";
import { Button } from "../../ui/Button";
import { ViewHead } from "../../ui/Panel";
import { Tabs } from "../../ui/Tabs";

const LINK = "inline-flex items-center h-8 px-3 rounded-xl border border-line bg-raise hover:border-edge";

/** Sheets for the people who plug, patch and listen: on screen as they will be printed. */
export function PaperView() {
  const showId = useShow((state) => state.desk!.show.id);
  const revision = useShow((state) => state.revision);
  const name = useText("show/name");
  const [sheets, setSheets] = useState<Sheet[]>([]);
  const [chosen, setChosen] = useState("input-list");
  const [fault, setFault] = useState("");
  useEffect(() => {
    let current = true;
    const timer = setTimeout(() => {
      getSheets(showId).then(
        (found) => {
          if (current) setSheets(found);
          setFault("");
        },
        (error: Error) => setFault(error.message),
      );
    }, 150);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [showId, revision]);
  return (
    <>
      <div className="screen-only">
        <ViewHead title="Paper">
          <Tabs
            label="Sheets"
            tabs={sheets.map((sheet) => ({ key: sheet.key, word: sheet.title, note: String(sheet.rows.length) }))}
            chosen={chosen}
            onChoose={setChosen}
          />
          <span className="flex-1" />
          <a className={LINK} href={paperAddress(showId, `${chosen}.csv`)}>
            CSV
          </a>
          <a className={LINK} href={paperAddress(showId, "all.xlsx")}>
            Spreadsheet
          </a>
          <a className={LINK} href={paperAddress(showId, "all.pdf")}>
            PDF
          </a>
          <Button tone="main" onClick={() => window.print()}>
            Print
          </Button>
        </ViewHead>
        {fault && <p role="alert" className="text-coral pb-2">{fault}</p>}
      </div>
      <div className="scrolls flex-1 min-h-0">
        {sheets.map((sheet) => (
          <Page key={sheet.key} sheet={sheet} name={name} hidden={sheet.key !== chosen} />
        ))}
      </div>
    </>
  );
}

function Page({ sheet, name, hidden }: { sheet: Sheet; name: string; hidden: boolean }) {
  return (
    <section className={`${hidden ? "print-only" : ""} paper rounded-lg bg-[#fffdf8] text-[#1d1a24] p-5`}>
      <h2 className="font-title text-lg font-bold pb-2">
        {sheet.title} · {name}
      </h2>
      {sheet.rows.length === 0 ? (
        <p>Nothing to list yet.</p>
      ) : (
        <table className="w-full text-[12px] leading-tight border-collapse">
          <thead>
            <tr className="border-b-2 border-[#1d1a24] text-left">
              {sheet.columns.map((column) => (
                <th key={column} className="py-1 pr-2 font-bold align-bottom">
                  {column}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {sheet.rows.map((row, index) => (
              <tr key={index} className="border-b border-[#d5cabb] even:bg-[#f3efe7] align-top">
                {row.map((cell, column) => (
                  <td key={column} className="py-1 pr-2">
                    {cell}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
