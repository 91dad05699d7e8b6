import { useState } from "react";
import { namesIn } from "../data/names";
import { Button } from "./Button";
import { sending } from "./sending";

interface Props {
  label: string;
  placeholder: string;
  /** Makes what is named; whether that was done. */
  onMake: (names: string[]) => Promise<boolean>;
}

/** A set of names, typed or pasted, and the key that makes them. */
export function NamesForm({ label, placeholder, onMake }: Props) {
  const [text, setText] = useState("");
  const names = namesIn(text);
  const make = async () => {
    if (names.length > 0) await sending([[text, setText]], () => onMake(names));
  };
  return (
    <form
      className="flex items-center gap-2 flex-1 min-w-56 max-w-[440px]"
      onSubmit={(event) => {
        event.preventDefault();
        void make();
      }}
    >
      <input
        aria-label={label}
        placeholder={placeholder}
        value={text}
        maxLength={2000}
        onChange={(event) => setText(event.currentTarget.value)}
        onPaste={(event) => {
          // a column of a spreadsheet comes with line ends, which a field would swallow
          const pasted = event.clipboardData.getData("text");
          if (!/[\n\t]/.test(pasted)) return;
          event.preventDefault();
          setText(`${text}${pasted.trim().replace(/[\n\t\r]+/g, ", ")}`);
        }}
        className="h-9 coarse:h-11 flex-1 min-w-0 px-2.5 rounded-lg border border-edge bg-card text-paper placeholder:text-faint"
      />
      <Button tone="main" type="submit" disabled={names.length === 0}>
        {names.length > 1 ? `Make ${names.length}` : "Make"}
      </Button>
    </form>
  );
}
