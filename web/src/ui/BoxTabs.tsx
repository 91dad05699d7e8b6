interface Box {
  key: string;
  short: string;
  name: string;
  note: string;
}

/** One box of sockets at a time: tabs with how many of each are taken. */
export function BoxTabs({ boxes, chosen, onChoose }: { boxes: readonly Box[]; chosen: string; onChoose: (key: string) => void }) {
  return (
    <div role="tablist" aria-label="Boxes" className="flex gap-1">
      {boxes.map((box) => (
        <button
          key={box.key}
          type="button"
          role="tab"
          aria-selected={box.key === chosen}
          title={box.name}
          onClick={() => onChoose(box.key)}
          className={`h-8 px-2.5 rounded-lg cursor-pointer ${box.key === chosen ? "bg-raise font-semibold" : "text-soft hover:text-paper"}`}
        >
          {box.short} <span className="text-faint text-[12px]">{box.note}</span>
        </button>
      ))}
    </div>
  );
}
