import { stripName, useShow } from "../../data/use";
import { Button } from "../../ui/Button";
import { TypedField } from "../../ui/TypedField";

interface Props {
  strips: readonly string[];
  onPan: (place: string) => void;
}

const PLACES = [
  ["L100", "L", "left"],
  ["C", "C", "centre"],
  ["R100", "R", "right"],
] as const;

/** The rows that are taken, and where they stand between left and right. */
export function PanKeys({ strips, onPan }: Props) {
  const first = useShow((state) => (strips[0] ? stripName(state, strips[0]) : ""));
  const what = strips.length > 1 ? `${strips.length} strips` : first;
  if (!first) return null;
  return (
    <span className="flex items-center gap-1.5 min-w-0">
      <span className="truncate max-w-44">{what}</span>
      {PLACES.map(([place, letter, word]) => (
        <Button key={letter} small aria-label={`${letter}: ${word}`} onClick={() => onPan(place)}>
          {letter}
        </Button>
      ))}
      <TypedField
        boxed
        label="Place of the strips taken"
        placeholder="L30"
        value=""
        className="w-16 coarse:h-11"
        onCommit={(text) => text.trim() && onPan(text)}
      />
    </span>
  );
}
