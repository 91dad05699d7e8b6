import { memo, useState } from "react";
import { valueIn } from "../../data/show";
import type { Ask } from "../../data/types";
import { fedBy, socketName, useLink, useOn, useShow, useText } from "../../data/use";
import { KIND_WORD, levelText } from "../../data/words";
import { Choice } from "../../ui/Choice";
import { ChooseBox, useIsChosen } from "../../ui/chosen";
import { ColourBar } from "../../ui/Panel";
import { Toggle } from "../../ui/Toggle";
import { TypedField } from "../../ui/TypedField";

const KINDS = Object.entries(KIND_WORD);

interface RowProps {
  line: number;
  onFocus: (line: number) => void;
  onPlug: (ask: Ask, mine: string) => void;
  /** Another line was dropped on this one. */
  onDrop: (line: number, before: number) => void;
  onRename: (line: number, typed: string) => void;
}

const DRAGGED = "application/x-line";

/** One line, each of its values edited in place; dragged by its left edge. */
export const LineRow = memo(function LineRow({
  line,
  onFocus,
  onPlug,
  onDrop,
  onRename,
}: RowProps) {
  const link = useLink();
  const chosen = useIsChosen(line);
  const at = (leaf: string) => `line/${line}/${leaf}`;
  const name = useText(at("name"));
  const stereo = useOn(at("stereo"));
  const phantom = useOn(at("phantom"));
  const level = useShow((state) => valueIn(state, at("level_dbu")) as number);
  const socket = useShow((state) => valueIn(state, at("socket")) as string | null);
  const fed = useShow((state) => fedBy(state, socket)).join(", ");
  const colour = useText(at("colour"));
  const type = (leaf: string) => (typed: string) => void link.type(at(leaf), typed);
  const [over, setOver] = useState(false);
  return (
    <div
      data-line={line}
      data-subject={`line/${line}`}
      onFocus={() => onFocus(line)}
      onDragOver={(event) => {
        if (!event.dataTransfer.types.includes(DRAGGED)) return;
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        setOver(false);
        const dragged = Number(event.dataTransfer.getData(DRAGGED));
        if (dragged && dragged !== line) onDrop(dragged, line);
      }}
      className={`row-line h-[calc(100%-2px)] rounded-md pr-1 border-t-2 ${over ? "border-sun" : "border-transparent"} ${chosen ? "bg-raise" : "bg-floor"}`}
    >
      <label
        draggable
        title="Drag to move"
        onDragStart={(event) => event.dataTransfer.setData(DRAGGED, String(line))}
        className="flex items-center self-stretch gap-2 cursor-grab"
        style={{ gridArea: "choose" }}
      >
        <ColourBar colour={colour} />
        <ChooseBox of={line} name={name} />
      </label>
      <TypedField
        label={`Name, line ${line}`}
        value={name}
        maxLength={120}
        onCommit={(typed) => onRename(line, typed)}
        className="font-semibold"
        area="name"
        data={{ "data-column": "name" }}
      />
      <Choice
        area="kind"
        label={`Kind of ${name}`}
        value={useText(at("kind"))}
        options={KINDS}
        onChange={(kind) => void link.do({ action: "set_kind", lines: [line], kind })}
      />
      <TypedField
        area="mic"
        placeholder="mic"
        label={`Mic or DI of ${name}`}
        value={useText(at("microphone"))}
        onCommit={type("microphone")}
        data={{ "data-column": "microphone" }}
      />
      <TypedField
        area="performer"
        placeholder="who"
        label={`Performer of ${name}`}
        value={useText(at("performer"))}
        onCommit={type("performer")}
        data={{ "data-column": "performer" }}
      />
      <SocketField line={line} name={name} right={false} onPlug={onPlug} />
      {stereo && <SocketField line={line} name={name} right onPlug={onPlug} />}
      <TypedField
        area="level"
        label={`Level of ${name} in dBu`}
        value={levelText(level, 0)}
        align="right"
        onCommit={type("level_dbu")}
        data={{ "data-column": "level" }}
      />
      <span className="text-center" style={{ gridArea: "phantom" }}>
        <Toggle
          label={`${name} needs 48 V`}
          tone="coral"
          pressed={phantom}
          onChange={(on) => type("phantom")(on ? "on" : "off")}
        >
          48
        </Toggle>
      </span>
      <span
        dir="auto"
        className={`text-[13px] truncate ${fed ? "text-soft" : "text-faint"}`}
        style={{ gridArea: "channel" }}
        title={fed && `Channel ${fed}`}
      >
        <span className="sr-only">channel </span>
        {fed || "none"}
      </span>
    </div>
  );
});

interface SocketProps {
  line: number;
  name: string;
  right: boolean;
  onPlug: (ask: Ask, mine: string) => void;
}

/** A socket as typed; underlined while 48 V is on there. */
function SocketField({ line, name, right, onPlug }: SocketProps) {
  const leaf = right ? "socket_right" : "socket";
  const socket = useShow((state) =>
    socketName(state, valueIn(state, `line/${line}/${leaf}`) as string | null),
  );
  const phantom = useShow((state) => {
    const at = valueIn(state, `line/${line}/${leaf}`) as string | null;
    return at !== null && valueIn(state, `${at}/phantom`) === true;
  });
  return (
    <TypedField
      area={right ? "right" : "socket"}
      label={`Socket of ${name}${right ? ", right" : ""}`}
      title={phantom ? "48 V is on here" : undefined}
      value={socket}
      placeholder="none"
      className={phantom ? "!border-b-2 !border-b-coral" : ""}
      onCommit={(text) => onPlug({ action: "plug", line, socket: text, right }, name)}
      data={{ "data-column": leaf }}
    />
  );
}
