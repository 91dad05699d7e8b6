import { describe, expect, it } from "vitest";
import { actOf, KEYS } from "./keys";

const SOURCES = Object.values(
  import.meta.glob("../**/*.tsx", { query: "?raw", import: "default", eager: true }),
) as string[];
const plain = { ctrlKey: false, metaKey: false, altKey: false, shiftKey: false };

describe("the table of keys", () => {
  it("binds no key twice in a view", () => {
    for (const [view, words] of Object.entries(KEYS)) {
      const keys = words.flatMap((one) => one.keys ?? []);
      expect(new Set(keys).size, view).toBe(keys.length);
    }
  });

  it("has nothing that its view does not do", () => {
    for (const [view, words] of Object.entries(KEYS)) {
      const bound = words.filter((one) => one.act);
      const views = SOURCES.filter((text) => text.includes(`"${view}"`));
      for (const { act } of bound)
        expect(
          views.some((text) => new RegExp(`\\b${act}: |"${act}"`).test(text)),
          `${view}: ${act}`,
        ).toBe(true);
    }
  });

  it("reads keys as they are pressed", () => {
    expect(actOf("run", { ...plain, key: "G" })).toBe("go");
    expect(actOf("run", { ...plain, key: "g", ctrlKey: true })).toBeNull();
    expect(actOf("everywhere", { ...plain, key: "Z", metaKey: true, shiftKey: true })).toBe("redo");
    expect(actOf("everywhere", { ...plain, key: "z", ctrlKey: true })).toBe("undo");
    expect(actOf("everywhere", { ...plain, key: "?", shiftKey: true })).toBe("keys");
  });
});
