/** Which controls the Tab key stops at: in rows only those of the row where the hand is. */
import {
  createContext,
  createElement,
  type FocusEvent,
  type KeyboardEvent,
  type ReactNode,
  useContext,
  useLayoutEffect,
  useRef,
  useState,
} from "react";

export const InReach = createContext(true);

/** The tab index of a control: in rows only the controls of one row are stops. */
export const useTabIndex = (): 0 | -1 => (useContext(InReach) ? 0 : -1);

const FOCUSABLE = "input, button, [role=slider], a[href]";

/** From a control of one row to the same of another; null is no row. */
export function toSamePlace(
  from: HTMLElement,
  here: HTMLElement,
  there: HTMLElement | null | undefined,
): boolean {
  const fields = there?.querySelectorAll<HTMLElement>(FOCUSABLE);
  if (!fields || fields.length === 0) return false;
  const place = [...here.querySelectorAll<HTMLElement>(FOCUSABLE)].indexOf(from);
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
  const stood = useRef<{ around: Element; place: number } | null>(null);
  // the row in hand was taken away: the hand goes to the one that stands in its place now
  const gone = current !== null && !keys.includes(current);
  useLayoutEffect(() => {
    if (!gone || !stood.current || document.activeElement !== document.body) return;
    const rows = stood.current.around.querySelectorAll("[data-row]");
    const row = rows[Math.min(stood.current.place, rows.length - 1)];
    row?.querySelector<HTMLElement>(FOCUSABLE)?.focus();
  }, [gone]);
  const [back, on] = across ? ["ArrowLeft", "ArrowRight"] : ["ArrowUp", "ArrowDown"];
  return {
    reached: current !== null && keys.includes(current) ? current : keys[0],
    hand: {
      onFocus: ({ target, currentTarget: around }) => {
        const row = (target as HTMLElement).closest<HTMLElement>("[data-row]");
        if (!row) return;
        stood.current = { around, place: [...around.querySelectorAll("[data-row]")].indexOf(row) };
        setCurrent(row.dataset.row!);
      },
      onKeyDown: (event) => {
        const step = event.key === on ? 1 : event.key === back ? -1 : 0;
        const from = event.target as HTMLElement;
        const here = from.closest<HTMLElement>("[data-row]");
        if (!step || !here || keepsArrow(event, across)) return;
        const rows = [...event.currentTarget.querySelectorAll<HTMLElement>("[data-row]")];
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
