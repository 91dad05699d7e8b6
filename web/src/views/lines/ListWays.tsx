import type { ReactNode } from "react";
import type { ListChoices, ListReply } from "../../data/types";
import { useShow } from "../../data/use";
import { Choice } from "../../ui/Choice";

interface Props {
  list: ListReply;
  choices: ListChoices;
  onChoices: (changed: Partial<ListChoices>) => void;
}

/** Which sheet and headings, how channels are given, and which boxes the list means. */
export function ListWays({ list, choices, onChoices }: Props) {
  const boxes = useShow((state) => state.desk!.boxes).filter((box) => box.inputs > 0);
  const sheets = list.sheets.map(
    (sheet) => [String(sheet.place), sheet.name + (sheet.hidden ? " (hidden)" : "")] as const,
  );
  const heading = list.lists[0]?.heading ?? 0;
  const rows = Math.max(30, heading);
  const headings = Array.from(
    { length: rows + 1 },
    (_, row) => [String(row), row ? `row ${row}` : "none"] as const,
  );
  const way = !choices.patch ? "lines" : list.numbered ? "numbered" : "order";
  const ways = [
    ...(list.has_numbers ? [["numbered", "as numbered"] as const] : []),
    ["order", "in order"] as const,
    ["lines", "none: lines only"] as const,
  ];
  const boxChoices = [
    ["", "no box of the desk"] as const,
    ...boxes.map((box) => [box.key, box.name] as const),
  ];
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-2 shrink-0 text-[14px]">
      <p className="text-soft basis-full">
        <strong className="text-paper">{list.name}</strong> read as {list.said}.
      </p>
      {sheets.length > 1 && (
        <Labelled word="Sheet">
          <Choice
            boxed
            label="Sheet"
            value={String(list.sheet)}
            options={sheets}
            onChange={(place) =>
              onChoices({ sheet: Number(place), heading: null, roles: [], out: [], kept: [] })
            }
          />
        </Labelled>
      )}
      <Labelled word="Headings in">
        <Choice
          boxed
          label="Headings in"
          value={String(heading)}
          options={headings}
          onChange={(row) => onChoices({ heading: Number(row), roles: [], out: [], kept: [] })}
        />
      </Labelled>
      <Labelled word="Channels">
        <Choice
          boxed
          label="Channels"
          value={way}
          options={ways}
          onChange={(chosen) =>
            onChoices({
              patch: chosen !== "lines",
              numbered: chosen === "lines" ? null : chosen === "numbered",
            })
          }
        />
      </Labelled>
      {way === "numbered" && list.even_pairs > 0 && (
        <Labelled
          word={`${list.even_pairs} stereo ${list.even_pairs === 1 ? "pair falls" : "pairs fall"} on even and odd:`}
        >
          <Choice
            boxed
            label="Stereo pairs on even and odd"
            value={choices.odd_pairs ? "odd" : "numbered"}
            options={[
              ["numbered", "leave as numbered"],
              ["odd", "move to odd and even"],
            ]}
            onChange={(chosen) => onChoices({ odd_pairs: chosen === "odd" })}
          />
        </Labelled>
      )}
      {list.boxes.map((box) => (
        <Labelled
          key={box.name}
          word={box.name ? `“${box.title}” is` : "Bare numbers count from"}
          strong={box.box === null}
        >
          <Choice
            boxed
            label={box.name ? `Box ${box.title} is` : "Bare numbers count from"}
            title={`${box.sockets} sockets in the list`}
            value={box.box ?? ""}
            options={boxChoices}
            onChange={(key) => onChoices({ boxes: { ...choices.boxes, [box.name]: key } })}
          />
        </Labelled>
      ))}
    </div>
  );
}

function Labelled({
  word,
  strong,
  children,
}: {
  word: string;
  strong?: boolean;
  children: ReactNode;
}) {
  return (
    <label
      className={`flex items-center gap-2 ${strong ? "text-sun-text font-semibold" : "text-soft"}`}
    >
      {word}
      {children}
    </label>
  );
}
