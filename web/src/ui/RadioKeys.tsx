import { ToggleGroup } from "radix-ui";

interface Props<Key extends string> {
  label: string;
  keys: readonly (readonly [key: Key, word: string, ...rest: unknown[]])[];
  chosen: Key;
  onChoose: (key: Key) => void;
}

/** One of a few, always one: keys side by side, one stop for Tab, walked by arrows. */
export function RadioKeys<Key extends string>({ label, keys, chosen, onChoose }: Props<Key>) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={chosen}
      onValueChange={(key) => key && onChoose(key as Key)}
      className="flex flex-wrap max-w-full rounded-xl border border-line"
    >
      {keys.map(([key, word]) => (
        <ToggleGroup.Item
          key={key}
          value={key}
          className="h-8 px-2.5 cursor-pointer whitespace-nowrap text-soft hover:text-paper data-[state=on]:bg-raise data-[state=on]:text-paper data-[state=on]:font-semibold"
        >
          {word}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
