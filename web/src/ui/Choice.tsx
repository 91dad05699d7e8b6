import { useTabIndex } from "./RowList";

interface Props {
  label: string;
  value: string;
  options: readonly (readonly [value: string, word: string])[];
  onChange: (value: string) => void;
  className?: string;
  boxed?: boolean;
  title?: string;
  /** Where it stands in the row's grid. */
  area?: string;
}

/** One of a few words: the browser's own list, which every keyboard and phone knows. */
export function Choice({
  label,
  value,
  options,
  onChange,
  className = "",
  boxed,
  title,
  area,
}: Props) {
  return (
    <select
      aria-label={label}
      tabIndex={useTabIndex()}
      title={title}
      style={area ? { gridArea: area } : undefined}
      value={value}
      onChange={(event) => onChange(event.currentTarget.value)}
      className={`h-7 min-w-0 rounded-md bg-card text-paper px-1 cursor-pointer border ${
        boxed ? "border-edge" : "border-transparent bg-transparent hover:border-line"
      } ${className}`}
    >
      {options.map(([option, word]) => (
        <option key={option} value={option} className="bg-card text-paper">
          {word}
        </option>
      ))}
    </select>
  );
}
