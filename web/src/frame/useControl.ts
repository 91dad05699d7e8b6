import { useEffect } from "react";
import { useAsked } from "../ui/useAsked";

const CONTROLS = "button, input, textarea, [role=combobox]";
const MOST_MS = 4000;

/** The control of the view in sight that is called so, or begins so. */
function called(name: string): HTMLElement | undefined {
  const small = name.toLowerCase();
  const all = document.querySelectorAll<HTMLElement>(`#work :is(${CONTROLS})`);
  return [...all].find((one) =>
    (one.ariaLabel || one.textContent || "").trim().toLowerCase().startsWith(small),
  );
}

let looking = 0;

/** The hand is led to a control as soon as it is drawn; what opens a dialog is opened by that. */
function lead(name: string, until: number): void {
  cancelAnimationFrame(looking);
  const control = called(name);
  if (!control) {
    if (performance.now() < until) looking = requestAnimationFrame(() => lead(name, until));
    return;
  }
  control.scrollIntoView({ block: "nearest" });
  control.focus();
  if ((control.textContent ?? "").trim().endsWith("…") && control.matches("button:not([role])"))
    control.click();
}

/** A control that the address asks for (`?at=New mix`) is where the hand goes. */
export function useControl(): void {
  useAsked(
    "at",
    () => true,
    (name) => lead(name, performance.now() + MOST_MS),
  );
  useEffect(() => () => cancelAnimationFrame(looking), []);
}
