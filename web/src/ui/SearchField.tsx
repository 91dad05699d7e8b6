interface Props {
  label: string;
  /** What can be looked for; the label, if that says it. */
  placeholder?: string;
  value: string;
  onChange: (text: string) => void;
  className?: string;
}

/** A field that narrows a list while one types. */
export function SearchField({
  label,
  placeholder = label,
  value,
  onChange,
  className = "w-44",
}: Props) {
  return (
    <input
      type="search"
      aria-label={label}
      placeholder={placeholder}
      className={`h-9 shrink-0 px-2.5 rounded-lg border border-edge bg-card placeholder:text-faint ${className}`}
      value={value}
      onChange={(event) => onChange(event.currentTarget.value)}
    />
  );
}
