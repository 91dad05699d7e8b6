import { getNonce } from "get-nonce";
import { Select } from "radix-ui";
import { type FocusEvent, type KeyboardEvent as KeyEvent, useRef, useState } from "react";
import { isSought } from "./keys";
import { useTabIndex } from "./reach";

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

// Radix keeps the empty text for "nothing chosen", which here may be a choice like any other
const keyOf = (option: string) => `=${option}`;

/** One of a few words: opened by a press, Enter or arrows, sought by its first letters. */
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
  const [open, setOpen] = useState(false);
  const { onFocus, onKeyDown } = useSought(open, () => setOpen(true));
  const word = options.find(([option]) => option === value)?.[1] ?? "";
  // as wide as its longest word, so that nothing beside it moves when another is chosen
  const longest = options.reduce((most, [, one]) => (one.length > most.length ? one : most), "");
  return (
    <Select.Root
      value={keyOf(value)}
      open={open}
      onOpenChange={setOpen}
      onValueChange={(key) => onChange(key.slice(1))}
    >
      <Select.Trigger
        aria-label={label}
        tabIndex={useTabIndex()}
        data-chosen={value}
        onKeyDown={onKeyDown}
        title={title}
        style={area ? { gridArea: area } : undefined}
        className={`h-7 min-w-0 rounded-md text-paper px-1.5 cursor-pointer border inline-flex items-center gap-1 ${
          boxed ? "border-edge bg-card" : "border-transparent hover:border-line"
        } ${className}`}
      >
        <span className="min-w-0 flex-1 text-left">
          <span dir="auto" className="block truncate">
            {word || "\u00a0"}
          </span>
          <span aria-hidden className="block h-0 overflow-hidden invisible whitespace-nowrap">
            {longest}
          </span>
        </span>
        <Select.Icon className="text-faint text-[0.8em]">▾</Select.Icon>
      </Select.Trigger>
      {open && (
        <Select.Portal>
          <Select.Content
            onFocus={onFocus}
            position="popper"
            sideOffset={4}
            collisionPadding={8}
            className="z-50 rounded-lg bg-raise border border-edge shadow-xl text-paper max-w-[min(90vw,420px)] min-w-(--radix-select-trigger-width) max-h-(--radix-select-content-available-height)"
          >
            <Select.Viewport className="p-1" nonce={getNonce()}>
              {options.map(([option, one]) => (
                <Select.Item
                  key={option}
                  value={keyOf(option)}
                  data-option={option}
                  className="min-h-8 coarse:min-h-11 px-2.5 py-1 rounded-md flex items-center gap-2 cursor-pointer outline-none data-[highlighted]:bg-card data-[state=checked]:font-semibold"
                >
                  <Select.ItemText>
                    <span className="[overflow-wrap:anywhere]">{one || "\u00a0"}</span>
                  </Select.ItemText>
                  <Select.ItemIndicator className="ml-auto text-sun-text">✓</Select.ItemIndicator>
                </Select.Item>
              ))}
            </Select.Viewport>
          </Select.Content>
        </Select.Portal>
      )}
    </Select.Root>
  );
}

/** Letters on a closed choice open it and are sought in it: those too that came before it was there. */
function useSought(open: boolean, onOpen: () => void) {
  const typed = useRef("");
  const onFocus = (event: FocusEvent) => {
    const keys = typed.current;
    typed.current = "";
    for (const key of keys)
      event.currentTarget.dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true }));
  };
  const onKeyDown = (event: KeyEvent) => {
    const plain = !event.ctrlKey && !event.metaKey && !event.altKey;
    const begun = open || typed.current !== ""; // then any sign is a letter of the word
    if (event.key.length !== 1 || !plain || !(begun || isSought(event.key))) return;
    event.preventDefault();
    typed.current += event.key;
    if (!open) onOpen();
  };
  return { onFocus, onKeyDown };
}
