/** Which controls the Tab key stops at: in rows only those of the row where the hand is. */
import {
  createContext,
  createElement,
  type FocusEvent,
  type KeyboardEvent,
  type ReactNode,
  useContext,
  useEffectEvent,
  useLayoutEffect,
  useRef,
  useState,
} from "react";

export const InReach = createContext(true);

/** The tab index of a control: in rows only the controls of one row are stops. */
export const useTabIndex = (): 0 | -1 => (useContext(InReach) ? 0 : -1);

const FOCUSABLE = "input:not([disabled]), button:not([disabled]), [role=slider], a[href]";

/** The controls of a row; a row may be one itself. */
const controls = (row: HTMLElement | null | undefined): HTMLElement[] =>
  !row ? [] : row.matches(FOCUSABLE) ? [row] : [...row.querySelectorAll<HTMLElement>(FOCUSABLE)];

/** From a control of one row to the same of another; null is no row. */
export function toSamePlace(
  from: HTMLElement,
  here: HTMLElement,
  there: HTMLElement | null | undefined,
): boolean {
  const fields = controls(there);
  if (fields.length === 0) return false;
  const place = controls(here).indexOf(from);
  const to = fields[Math.min(Math.max(0, place), fields.length - 1)]!;
  to.focus();
  to.scrollIntoView({ block: "nearest", inline: "nearest" });
  return true;
}

/** Whether an arrow is the control's own matter: of a list of words, of what is typed in a field. */
export function keepsArrow(event: KeyboardEvent, across: boolean): boolean {
  const from = event.target as HTMLElement;
  if (event.defaultPrevented || event.altKey || event.ctrlKey || event.metaKey) return true;
  if (from.getAttribute("role") === "combobox" || from.dataset.column) return true;
  if (!across || !(from instanceof HTMLInputElement) || from.type === "checkbox") return false;
  const whole = from.selectionStart === 0 && from.selectionEnd === from.value.length;
  return !whole; // a cursor within what is typed goes through it
}

interface Rows {
  /** The row whose controls are stops. */
  reached: string | undefined;
  /** For what holds the rows, each marked with `data-row`. */
  hand: {
    onFocus: (event: FocusEvent) => void;
    onKeyDown: (event: KeyboardEvent<HTMLElement>) => void;
  };
}

/**
 * Rows that are one place for the Tab key, which then goes through the controls of one; arrows go to
 * the same control of the next, up and down, or with `across` left and right.
 */
export function useRows(keys: readonly string[], { across = false } = {}): Rows {
  const [current, setCurrent] = useState<string | null>(null);
  // rows may hold rows: those of others are none of these
  const isOne = (row: HTMLElement) => keys.includes(row.dataset.row!);
  const rowsIn = (around: Element) =>
    [...around.querySelectorAll<HTMLElement>("[data-row]")].filter(isOne);
  const rowOf = (from: HTMLElement | null): HTMLElement | null => {
    const row = from?.closest<HTMLElement>("[data-row]") ?? null;
    return !row || isOne(row) ? row : rowOf(row.parentElement);
  };
  const stood = useRef<{ around: Element; place: number } | null>(null);
  // the row in hand was taken away: the hand goes to the one that stands in its place now
  const gone = current !== null && !keys.includes(current);
  const takeTheNext = useEffectEvent(() => {
    if (!stood.current || document.activeElement !== document.body) return;
    const rows = rowsIn(stood.current.around);
    controls(rows[Math.min(stood.current.place, rows.length - 1)])[0]?.focus();
  });
  useLayoutEffect(() => {
    if (gone) takeTheNext();
  }, [gone]);
  const [back, on] = across ? ["ArrowLeft", "ArrowRight"] : ["ArrowUp", "ArrowDown"];
  return {
    reached: current !== null && keys.includes(current) ? current : keys[0],
    hand: {
      onFocus: ({ target, currentTarget: around }) => {
        const row = rowOf(target as HTMLElement);
        if (!row) return;
        stood.current = { around, place: rowsIn(around).indexOf(row) };
        setCurrent(row.dataset.row!);
      },
      onKeyDown: (event) => {
        const step = event.key === on ? 1 : event.key === back ? -1 : 0;
        const from = event.target as HTMLElement;
        const here = rowOf(from);
        if (!step || !here || keepsArrow(event, across)) return;
        const rows = rowsIn(event.currentTarget);
        const there = rows[rows.indexOf(here) + step];
        if (toSamePlace(from, here, there)) event.preventDefault();
      },
    },
  };
}

/** What stands in one of some rows. */
export function InRow({ of, rows, children }: { of: string; rows: Rows; children: ReactNode }) {
  const around = useContext(InReach);
  return createElement(InReach, { value: around && rows.reached === of }, children);
}
