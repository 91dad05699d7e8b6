import { Fragment } from "react";
import type { Sheet } from "../../data/types";

/** Words longer than any column is wide may be broken; no other is. */
function Words({ text: given }: { text: string }) {
  const text = given.replace(/(\d) (V|dBu?|ms|%)(?!\w)/g, "$1\u00a0$2"); // a number stays with its unit
  if (!/\S{44}/.test(text)) return text;
  return text.split(/(\s+)/).map((word, index) =>
    word.length > 43 ? (
      <span key={index} className="long">
        {word}
      </span>
    ) : (
      <Fragment key={index}>{word}</Fragment>
    ),
  );
}

/** One sheet, as it will be printed. */
export function Page({ sheet, name, hidden }: { sheet: Sheet; name: string; hidden: boolean }) {
  return (
    <section
      className={`${hidden ? "print-only" : ""} paper rounded-lg bg-[#fffdf8] text-[#1d1a24] p-5`}
    >
      <h2 className="font-title text-lg font-bold pb-1" dir="auto">
        {sheet.title} · {name}
      </h2>
      {sheet.about && <p className="pb-1 text-[13px]">{sheet.about}</p>}
      {sheet.rows.length === 0 ? (
        <p>Nothing to list yet.</p>
      ) : (
        <table className="w-full text-[12px] leading-tight border-collapse">
          <thead>
            <tr className="border-b-2 border-[#1d1a24] text-left">
              {sheet.columns.map((column) => (
                <th key={column} scope="col" className="py-1 pr-2 font-bold align-bottom">
                  {column}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {sheet.rows.map((row, index) => (
              <tr key={index} className="border-b border-[#d5cabb] even:bg-[#f3efe7] align-top">
                {row.map((cell, column) => (
                  <td key={column} dir="auto" className="py-1 pr-2">
                    <Words text={cell} />
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
