import { type KeyboardEvent, useRef, useState } from "react";
import { useTabIndex } from "./reach";

interface Props {
  label: string;
  /** The value as text; what is shown while nobody types. */
  value: string;
  /** Called with what was typed, when Enter or leaving the field settles it. */
  onCommit: (text: string) => void;
  className?: string;
  placeholder?: string;
  align?: "left" | "right";
  maxLength?: number;
  /** A clear look for a field that stands alone; in lists the cell's own outline is enough. */
  boxed?: boolean;
  title?: string;
  /** Something is missing here: outlined in coral. */
  missing?: boolean;
  /** Where it stands in the row's grid. */
  area?: string;
  data?: Record<string, string>;
}

/**
 * A field that is edited in place: shows the value, takes typing, settles on Enter or when left,
 * and gives up on Escape. Up and down go to the same field of the next row.
 */
export function TypedField(props: Props) {
  const { label, value, onCommit, className = "", align = "left", boxed } = props;
  const tabIndex = useTabIndex();
  const [draft, show] = useState<string | null>(null);
  // The draft as it is now: Enter settles and moves on, and the blur that follows must find nothing.
  const now = useRef<string | null>(null);

  const setDraft = (text: string | null) => {
    now.current = text;
    show(text);
  };
  const settle = () => {
    const text = now.current;
    setDraft(null);
    if (text !== null && text !== value) onCommit(text);
  };

  const onKey = (event: KeyboardEvent<HTMLInputElement>) => {
    const field = event.currentTarget;
    if (event.key === "Enter") {
      settle();
      if (!moveFocus(field, event.shiftKey ? -1 : 1)) field.select();
    } else if (event.key === "Escape") {
      if (now.current === null) field.closest<HTMLElement>("[tabindex]:not(input)")?.focus();
      setDraft(null);
    } else if ((event.key === "ArrowUp" || event.key === "ArrowDown") && !event.altKey) {
      if (moveFocus(field, event.key === "ArrowUp" ? -1 : 1)) event.preventDefault();
    }
  };

  return (
    <input
      aria-label={label}
      className={`min-w-0 text-ellipsis bg-transparent rounded-md px-1.5 h-7 text-paper placeholder:text-faint ${
        boxed
          ? `border bg-card ${props.missing ? "border-coral" : "border-edge"}`
          : "border border-transparent hover:border-line"
      } ${align === "right" ? "text-right" : ""} ${className}`}
      value={draft ?? value}
      tabIndex={tabIndex}
      style={props.area ? { gridArea: props.area } : undefined}
      data-settled={draft === null || draft === value}
      title={props.title ?? (value.length > LONG ? value : undefined)}
      placeholder={props.placeholder}
      maxLength={props.maxLength}
      dir="auto"
      spellCheck={false}
      autoComplete="off"
      onFocus={(event) => event.currentTarget.select()}
      onChange={(event) => setDraft(event.currentTarget.value)}
      onBlur={settle}
      onKeyDown={onKey}
      {...props.data}
    />
  );
}

/** From so many letters on a field may be too narrow for what stands in it: its tip tells it whole. */
const LONG = 12;

/** Focus the same column of the next or previous row: fields share `data-column` within a grid. */
function moveFocus(field: HTMLInputElement, step: number): boolean {
  const column = field.dataset.column;
  const grid = field.closest("[data-grid]");
  if (!column || !grid) return false;
  const fields = [...grid.querySelectorAll<HTMLInputElement>(`[data-column="${column}"]`)];
  const next = fields[fields.indexOf(field) + step];
  next?.focus();
  next?.scrollIntoView({ block: "nearest" });
  return next !== undefined;
}
