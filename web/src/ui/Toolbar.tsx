import type { ReactNode } from "react";
import { InRow, useRows } from "./reach";

interface Props {
  label: string;
  /** What stands side by side, each under a key of its own. */
  tools: Readonly<Record<string, ReactNode>>;
  className?: string;
}

/** Keys side by side that are one stop for the Tab key; left and right go from one to the next. */
export function Toolbar({ label, tools, className = "gap-3" }: Props) {
  const keys = Object.keys(tools).filter((key) => tools[key]);
  const rows = useRows(keys, { across: true });
  return (
    <span
      role="toolbar"
      aria-label={label}
      className={`flex items-center flex-wrap ${className}`}
      {...rows.hand}
    >
      {keys.map((key) => (
        <span key={key} data-row={key} className="contents">
          <InRow of={key} rows={rows}>
            {tools[key]}
          </InRow>
        </span>
      ))}
    </span>
  );
}
