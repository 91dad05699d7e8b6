import { Tabs as RadixTabs } from "radix-ui";

export interface Tab {
  key: string;
  word: string;
  /** In full, where the word is short. */
  title?: string;
  /** How many, or how many of how many. */
  note: string;
}

interface Props {
  label: string;
  tabs: readonly Tab[];
  chosen: string;
  onChoose: (key: string) => void;
}

/** One of several at a time, each with a count beside its word: one stop for Tab, walked by arrows. */
export function Tabs({ label, tabs, chosen, onChoose }: Props) {
  return (
    <RadixTabs.Root value={chosen} onValueChange={onChoose} className="min-w-0">
      <RadixTabs.List aria-label={label} className="flex gap-1 flex-wrap">
        {tabs.map((tab) => (
          <RadixTabs.Trigger
            key={tab.key}
            value={tab.key}
            title={tab.title}
            aria-controls={undefined}
            className="h-8 px-2.5 rounded-lg cursor-pointer text-soft hover:text-paper data-[state=active]:bg-raise data-[state=active]:text-paper data-[state=active]:font-semibold"
          >
            {tab.word} <span className="text-faint text-[12px]">{tab.note}</span>
          </RadixTabs.Trigger>
        ))}
      </RadixTabs.List>
    </RadixTabs.Root>
  );
}
