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

/** One of several at a time, each with a count beside its word. */
export function Tabs({ label, tabs, chosen, onChoose }: Props) {
  return (
    <div role="tablist" aria-label={label} className="flex gap-1">
      {tabs.map((tab) => (
        <button
          key={tab.key}
          type="button"
          role="tab"
          aria-selected={tab.key === chosen}
          title={tab.title}
          onClick={() => onChoose(tab.key)}
          className={`h-8 px-2.5 rounded-lg cursor-pointer ${tab.key === chosen ? "bg-raise font-semibold" : "text-soft hover:text-paper"}`}
        >
          {tab.word} <span className="text-faint text-[12px]">{tab.note}</span>
        </button>
      ))}
    </div>
  );
}
