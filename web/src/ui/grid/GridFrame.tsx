import type { VirtualItem } from "@tanstack/react-virtual";
import type { ComponentProps, ReactNode } from "react";
import type { GridHand } from "./useGrid";

interface Props
  extends Pick<
    ComponentProps<"div">,
    | "onKeyDown"
    | "onPointerDown"
    | "onPointerOver"
    | "onPointerUp"
    | "onClick"
    | "onDoubleClick"
    | "className"
  > {
  grid: GridHand;
  label: string;
  /** What stands before a cell's place in its id. */
  cellId: string;
  /** How many rows and columns there are, and px of the head of the rows and of the columns. */
  counts: readonly [rows: number, columns: number];
  headWidth: number;
  headHeight: number;
  headClass: string;
  /** Over the heads of the rows. */
  corner: ReactNode;
  heads: ReactNode;
  /** Where the heads hold controls: what makes them one stop, as rows are. */
  headsHand?: Pick<ComponentProps<"div">, "onFocus" | "onKeyDown">;
  row: (item: VirtualItem) => ReactNode;
}

/** What all grids are drawn in: a scroller that is one stop for the Tab key, heads that stay in sight. */
export function GridFrame(props: Props) {
  const { grid, counts, headHeight, headWidth } = props;
  const [rows, columns] = counts;
  return (
    <div
      ref={grid.scroller}
      role="grid"
      aria-label={props.label}
      aria-rowcount={rows + 1}
      aria-colcount={columns + 1}
      aria-multiselectable
      aria-activedescendant={`${props.cellId}-${grid.head.row}-${grid.head.column}`}
      tabIndex={0}
      data-grid
      onKeyDown={props.onKeyDown}
      onPointerDown={props.onPointerDown}
      onPointerOver={props.onPointerOver}
      onPointerUp={props.onPointerUp}
      onPointerLeave={props.onPointerUp}
      onClick={props.onClick}
      onDoubleClick={props.onDoubleClick}
      className={`scrolls flex-1 min-h-0 short:min-h-72 rounded-lg ${props.className ?? ""}`}
    >
      <div
        className="relative"
        role="presentation"
        style={{ width: grid.columns.getTotalSize(), height: grid.rows.getTotalSize() }}
      >
        <div
          role="row"
          aria-rowindex={1}
          className={`sticky top-0 z-20 flex ${props.headClass}`}
          style={{ height: headHeight }}
          {...props.headsHand}
        >
          <span
            role="columnheader"
            aria-colindex={1}
            className="sticky left-0 z-10 bg-inherit shrink-0 flex items-end px-2 pb-1 text-faint text-[12px]"
            style={{ width: headWidth, height: headHeight - 1 }}
          >
            {props.corner}
          </span>
          {props.heads}
        </div>
        {grid.rows.getVirtualItems().map((item) => (item.index < rows ? props.row(item) : null))}
      </div>
    </div>
  );
}
