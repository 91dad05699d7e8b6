import type { Ref } from "react";

interface Props {
  label: string;
  value: string;
  onChange: (text: string) => void;
  placeholder?: string;
  maxLength?: number;
  className?: string;
  small?: boolean;
  /** For who gives it the hand. */
  field?: Ref<HTMLInputElement>;
}

/** A line to type into, in a form: it settles with the form's button. */
export function Entry({
  label,
  value,
  onChange,
  placeholder,
  maxLength = 400,
  className = "",
  small,
  field,
}: Props) {
  const size = small ? "h-8 px-2 text-[13.5px]" : "h-9 px-2.5";
  return (
    <input
      ref={field}
      aria-label={label}
      placeholder={placeholder}
      value={value}
      maxLength={maxLength}
      spellCheck={false}
      autoComplete="off"
      onChange={(event) => onChange(event.currentTarget.value)}
      className={`${size} coarse:h-11 min-w-0 rounded-lg border border-edge bg-card placeholder:text-faint ${className}`}
    />
  );
}
