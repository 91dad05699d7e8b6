import { type ButtonHTMLAttributes, useLayoutEffect, useRef } from "react";
import { useTabIndex } from "./reach";
import { tipOf } from "./tips";

const TONES = {
  plain: "bg-raise text-paper border-line hover:border-edge",
  main: "bg-sun text-on-sun border-sun font-semibold hover:brightness-110",
  quiet: "bg-transparent text-soft border-transparent hover:text-paper hover:bg-raise",
  danger: "bg-transparent text-coral border-coral/60 hover:bg-blocked",
} as const;

interface Props extends ButtonHTMLAttributes<HTMLButtonElement> {
  tone?: keyof typeof TONES;
  small?: boolean;
}

/**
 * A button; `main` for the one main action of a view. One that comes to rest under the hand, as when
 * what was typed is made, gives the hand to the first field of its form.
 */
export function Button({ tone = "plain", small, className = "", ...rest }: Props) {
  const key = useRef<HTMLButtonElement>(null);
  const rests = rest.disabled === true;
  useLayoutEffect(() => {
    if (rests && document.activeElement === key.current)
      key.current?.form?.querySelector<HTMLElement>("input, textarea")?.focus();
  }, [rests]);
  const size = small ? "h-7 px-2.5 text-[13px] rounded-lg" : "h-9 px-3.5 rounded-xl";
  return (
    <button
      ref={key}
      type="button"
      tabIndex={useTabIndex()}
      title={tipOf(rest.children)}
      className={`inline-flex items-center gap-1.5 border whitespace-nowrap select-none cursor-pointer disabled:opacity-45 disabled:cursor-default ${size} ${TONES[tone]} ${className}`}
      {...rest}
    />
  );
}
