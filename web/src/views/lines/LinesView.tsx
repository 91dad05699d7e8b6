import { type ClipboardEvent, type KeyboardEvent, useCallback, useRef, useState } from "react";
import { useSearch } from "wouter";
import { begunOf } from "../../data/begun";
import { hasWords } from "../../data/search";
import { type ShowState, valueIn } from "../../data/show";
import type { Ask } from "../../data/types";
import { socketName, useFiltered, useLink, useShow } from "../../data/use";
import { ViewHead } from "../../frame/ViewHead";
import { Button } from "../../ui/Button";
import { ChooseAll, ChosenIn, useChosen } from "../../ui/chosen";
import { useListHeight } from "../../ui/media";
import { OwnWord } from "../../ui/OwnWord";
import { Empty } from "../../ui/Panel";
import { RowList } from "../../ui/RowList";
import { SearchField } from "../../ui/SearchField";
import { useAsked } from "../../ui/useAsked";
import { useTaking } from "../../ui/useTaking";
import { Chosen } from "./Chosen";
import { ImportDialog } from "./ImportDialog";
import { LineDetail } from "./LineDetail";
import { LineRow } from "./LineRow";
import { NewLine } from "./NewLine";
import { Renamed } from "./Renamed";

/** The input list, edited in place. */
export function LinesView() {
  const link = useLink();
  const lines = useShow((state) => state.lines);
  const [file, setFile] = useState<File | null>(null);
  const search = new URLSearchParams(useSearch());
  const showId = useShow((state) => state.desk!.show.id);
  // a show that was made with the band's list begins with it
  const [importing, setImporting] = useState(
    () => search.get("new") === "1" && lines.length === 0 && begunOf(showId) !== null,
  );
  useAsked(
    "import",
    () => true,
    () => setImporting(true),
  );
  const { choosing, picked, all } = useChosen(lines);
  const [focused, setFocused] = useState<number | null>(null);
  const [filter, setFilter] = useState("");
  const shown = useFiltered(linesLike, filter);

  const taking = useTaking();
  const latest = useRef(taking.ask);
  latest.current = taking.ask;
  const plug = useCallback((ask: Ask, mine: string) => latest.current(ask, mine), []);

  // a channel that was called after its line is offered the line's new name
  const [renamed, setRenamed] = useState<number | null>(null);
  const rename = useCallback(
    (line: number, typed: string) => {
      const follow: Ask = { action: "name_channels", lines: [line] };
      void (async () => {
        const before = await link.try(follow, { before: true });
        const kept = await link.type(`line/${line}/name`, typed);
        if (kept && typeof before !== "string" && before.changes === 0) setRenamed(line);
      })();
    },
    [link],
  );

  const drop = useCallback(
    (line: number, before: number) => void link.do({ action: "move_lines", lines: [line], before }),
    [link],
  );
  const move = (step: -1 | 1) => {
    const rest = lines.filter((line) => !picked.includes(line));
    const edge = step < 0 ? lines.indexOf(picked[0]!) - 1 : lines.indexOf(picked.at(-1)!) + 2;
    const before = lines.slice(Math.max(0, edge)).find((line) => rest.includes(line)) ?? null;
    void link.do({ action: "move_lines", lines: picked, before });
  };
  const onKey = (event: KeyboardEvent) => {
    if (picked.length && event.altKey && (event.key === "ArrowUp" || event.key === "ArrowDown")) {
      event.preventDefault();
      move(event.key === "ArrowUp" ? -1 : 1);
    }
  };
  const row = useCallback(
    (line: number) => (
      <LineRow line={line} onFocus={setFocused} onPlug={plug} onDrop={drop} onRename={rename} />
    ),
    [plug, drop, rename],
  );
  const height = useListHeight();
  // a line that was asked for by its number (Find, a finding) is brought into sight, each time anew
  const [asked, setAsked] = useState<number | null>(null);
  useAsked(
    "line",
    (line) => lines.includes(Number(line)),
    (line) => {
      setAsked(null);
      requestAnimationFrame(() => setAsked(Number(line)));
    },
  );
  const onPaste = (event: ClipboardEvent) => {
    const text = event.clipboardData.getData("text/plain");
    if (!/[\t\n]/.test(text.trim())) return; // one value: for the field it is pasted into
    event.preventDefault();
    setFile(new File([text], "pasted rows", { type: "text/plain" }));
    setImporting(true);
  };

  return (
    <ChosenIn value={choosing}>
      <div className="flex flex-col flex-1 min-h-0" onPaste={onPaste}>
        <ViewHead title="Lines">
          <Button tone="main" onClick={() => setImporting(true)}>
            Import a list…
          </Button>
          <SearchField label="Find in the lines" value={filter} onChange={setFilter} />
          <span className="text-faint ml-auto whitespace-nowrap">
            {filter ? `${shown.length} of ${lines.length}` : `${lines.length} lines`}
          </span>
        </ViewHead>
        {picked.length > 0 && <Chosen lines={picked} onMove={move} onDone={() => all([], false)} />}
        {taking.bar}
        {renamed && <Renamed line={renamed} onDone={() => setRenamed(null)} />}
        {lines.length === 0 ? (
          <Empty title="No lines yet">
            <p>
              Import the input list that the band sent, as CSV or spreadsheet; paste its rows here;
              or add lines by name.
            </p>
            <NewLine />
          </Empty>
        ) : (
          <>
            <div className="row-line slim:!flex slim:gap-2 slim:pl-2.5 pb-1 pr-1 text-[12px] text-faint shrink-0 items-center">
              <label
                className="flex justify-end items-center pr-0.5 cursor-pointer"
                style={{ gridArea: "choose" }}
              >
                <ChooseAll
                  label="Choose all lines shown"
                  shown={shown}
                  picked={picked}
                  onAll={(on) => all(shown, on)}
                />
              </label>
              <span className="hidden slim:inline" style={{ gridArea: "name" }}>
                all
              </span>
              {HEADS.map(([area, word, look]) => (
                <span
                  key={area}
                  className={`slim:hidden ${look}`}
                  style={{ gridArea: area }}
                  title={area === "right" ? "Only for a stereo line" : undefined}
                >
                  <OwnWord word={word} />
                </span>
              ))}
            </div>
            <RowList
              label="Lines"
              keys={shown}
              height={height}
              shown={asked}
              onKeyDown={onKey}
              row={row}
              className="rounded-lg"
              foot={
                <div className="pt-2 pb-1 pl-9 phone:pl-0">
                  <NewLine />
                </div>
              }
            />
          </>
        )}
        {focused !== null && lines.includes(focused) && <LineDetail key={focused} line={focused} />}
        <ImportDialog
          open={importing}
          file={file}
          onOpenChange={(open) => {
            setImporting(open);
            if (!open) setFile(null);
          }}
        />
      </div>
    </ChosenIn>
  );
}

const HEADS = [
  ["name", "Name", "pl-1.5"],
  ["kind", "Kind", "pl-1.5"],
  ["mic", "Mic or DI", "pl-1.5"],
  ["performer", "Performer", "pl-1.5"],
  ["socket", "Socket", "pl-1.5"],
  ["right", "Right", "pl-1.5"],
  ["level", "dBu", "text-right pr-1.5"],
  ["phantom", "48 V", "text-center"],
  ["channel", "Channel", ""],
] as const;

/** The lines that hold every word typed, in any of their texts. */
function linesLike(state: ShowState, filter: string): readonly number[] {
  if (!filter.trim()) return state.lines;
  const said = hasWords(filter);
  return state.lines.filter((line) => {
    const texts = ["name", "kind", "microphone", "performer", "where", "family", "notes"].map(
      (leaf) => valueIn(state, `line/${line}/${leaf}`),
    );
    const socket = socketName(state, valueIn(state, `line/${line}/socket`) as string | null);
    return said([...texts, socket].join(" "));
  });
}
