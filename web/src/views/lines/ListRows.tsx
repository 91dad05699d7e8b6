import type { ListChoices, ListReply, ListRole } from "../../data/types";
import { KIND_WORD } from "../../data/words";
import { Choice } from "../../ui/Choice";

const ROLE_WORD: Record<ListRole, string> = {
  ignore: "leave out",
  number: "channel",
  name: "name",
  microphone: "mic or DI",
  kind: "kind",
  socket: "socket",
  box: "box",
  performer: "performer",
  part: "part of a play",
  where: "where",
  stand: "stand",
  phantom: "48 V",
  stereo: "stereo",
  side: "side",
  count: "how many",
  level: "level, dBu",
  family: "family",
  colour: "colour",
  notes: "notes",
};
const STATE_TONE = { new: "text-sea", changed: "text-sun-text", same: "text-soft" } as const;

type OneList = ListReply["lists"][number];
type Row = OneList["rows"][number];

interface Props {
  /** Which of the lists of the sheet. */
  number: number;
  list: ListReply;
  one: OneList;
  choices: ListChoices;
  onChoices: (changed: Partial<ListChoices>) => void;
}

const toggled = (keys: readonly string[], wanted: readonly string[], on: boolean): string[] =>
  on ? [...new Set([...keys, ...wanted])] : keys.filter((key) => !wanted.includes(key));

/** Every row of one list: whether it is taken, which channel it gets, what it becomes. */
export function ListRows({ number, list, one, choices, onChoices }: Props) {
  const options = list.role_choices.map((role) => [role, ROLE_WORD[role]] as const);
  const role = (column: number, chosen: string) => {
    const rest = (choices.roles ?? []).filter(
      (known) => known.list !== number || known.column !== column,
    );
    onChoices({ roles: [...rest, { list: number, column, role: chosen as ListRole }] });
  };
  const onTake = (row: Row, take: boolean) => {
    if (row.what === "section") {
      const keys = one.rows
        .filter((other) => other.section === row.section && other !== row)
        .map((other) => other.key);
      onChoices({ out: toggled(choices.out ?? [], keys, !take) });
    } else if (take && !choices.out?.includes(row.key))
      onChoices({ kept: toggled(choices.kept ?? [], [row.key], true) });
    else
      onChoices({
        out: toggled(choices.out ?? [], [row.key], !take),
        kept: toggled(choices.kept ?? [], [row.key], false),
      });
  };
  return (
    <table
      className="w-full text-[13px] border-collapse"
      aria-label={list.lists.length > 1 ? `List ${number + 1} of ${list.lists.length}` : "The list"}
    >
      <thead className="sticky top-0 bg-raise z-10">
        <tr className="text-left text-faint">
          <th className="px-2 py-1.5 font-normal">Take</th>
          <th className="px-2 py-1.5 font-normal">Row</th>
          <th className="px-2 py-1.5 font-normal">Channel</th>
          <th className="px-2 py-1.5 font-normal min-w-64">Becomes</th>
          {one.roles.map((known, place) => (
            <th key={place} className="px-1 py-1.5 font-normal" title={one.titles[place]}>
              <Choice
                label={`Column ${one.columns[place]! + 1} is`}
                value={known}
                options={options}
                onChange={(chosen) => role(one.columns[place]!, chosen)}
                boxed
                className={`w-full min-w-20 ${known === "ignore" ? "text-faint" : ""}`}
              />
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {one.rows.map((row) => (
          <OneRow
            key={row.key}
            row={row}
            roles={one.roles}
            taken={isTaken(one, row)}
            onTake={onTake}
          />
        ))}
      </tbody>
    </table>
  );
}

/** Whether a row is taken; a heading within the list stands for the rows below it. */
function isTaken(one: OneList, row: Row): boolean {
  if (row.what !== "section") return row.lines.length > 0;
  return one.rows.some(
    (other) => other.section === row.section && other !== row && other.what !== "out",
  );
}

interface RowProps {
  row: Row;
  roles: readonly ListRole[];
  taken: boolean;
  onTake: (row: Row, take: boolean) => void;
}

function OneRow({ row, roles, taken, onTake }: RowProps) {
  const gives = row.lines.length > 0;
  const section = row.what === "section";
  const idle = !gives && row.what !== "problem" && !section;
  const fixed = row.what === "heading" || row.what === "right" || row.what === "problem";
  return (
    <tr
      data-row={row.number}
      data-what={row.what}
      className={`border-t border-line align-top ${section ? "bg-card" : ""} ${row.what === "problem" ? "hatch" : ""} ${idle ? "text-faint" : ""}`}
    >
      <td className="px-2 py-1">
        {!fixed && (
          <input
            type="checkbox"
            aria-label={section ? `Take the rows under ${row.section}` : `Take row ${row.number}`}
            className="accent-(--sun) w-4 h-4 cursor-pointer"
            checked={taken}
            onChange={(event) => onTake(row, event.currentTarget.checked)}
          />
        )}
      </td>
      <td className="px-2 py-1 text-faint">{row.number}</td>
      <td className="px-2 py-1 whitespace-nowrap">
        {row.lines.map((line, index) => (
          <p key={index} className={line.channels.length ? "" : "text-faint"}>
            {line.channels.join("/") || "none"}
          </p>
        ))}
      </td>
      <td className="px-2 py-1">
        {row.what === "problem" && (
          <span className="text-coral font-semibold">Cannot be taken: {row.says}</span>
        )}
        {!gives && row.what !== "problem" && row.says}
        {row.lines.map((line, index) => (
          <div key={index}>
            <p>
              <strong>{line.name}</strong>{" "}
              <span className="text-soft">
                {[
                  KIND_WORD[line.kind],
                  line.stereo && "stereo",
                  line.phantom && "48 V",
                  line.sockets.join(", "),
                ]
                  .filter(Boolean)
                  .join(" · ")}
              </span>{" "}
              <span className={STATE_TONE[line.state]}>
                {line.state === "same" ? "as it is" : line.state}
              </span>
            </p>
            {line.changes.map((change) => (
              <p key={change} className="text-sun-text">
                {change}
              </p>
            ))}
            {line.told.length > 0 && <p className="text-coral">{line.told.join("; ")}</p>}
          </div>
        ))}
        {row.told.length > 0 && <p className="text-coral">{row.told.join("; ")}</p>}
      </td>
      {row.cells.map((cell, place) => (
        <td
          dir="auto"
          key={place}
          className={`px-2 py-1 max-w-40 truncate ${roles[place] === "ignore" ? "text-faint" : "text-soft"}`}
          title={cell}
        >
          {cell}
        </td>
      ))}
    </tr>
  );
}

/** Lines of the show that the list no longer names: whether each leaves, and what that means. */
export function Gone({ list, choices, onChoices }: Omit<Props, "number" | "one">) {
  if (list.gone.length === 0 || (list.changed + list.same === 0 && !choices.leaving)) return null;
  const leaving = list.gone.filter((one) => one.leaves).map((one) => one.line);
  return (
    <section aria-label="No longer in the list" className="border-t-2 border-edge p-3 text-[13px]">
      <h3 className="font-bold pb-1">In the show, but not in this list</h3>
      {list.gone.map((one) => (
        <label key={one.line} className="flex items-baseline gap-2 py-0.5 cursor-pointer">
          <input
            type="checkbox"
            aria-label={`${one.name} leaves the list`}
            className="accent-(--sun) w-4 h-4 self-center"
            checked={one.leaves}
            onChange={(event) =>
              onChoices({
                leaving: event.currentTarget.checked
                  ? [...leaving, one.line]
                  : leaving.filter((line) => line !== one.line),
              })
            }
          />
          <span>
            <strong>{one.name}</strong>{" "}
            {one.leaves ? (
              <span className="text-coral">leaves. {one.says}</span>
            ) : (
              <span className="text-soft">stays as it is</span>
            )}
          </span>
        </label>
      ))}
    </section>
  );
}
