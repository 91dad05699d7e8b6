import { expect, it } from "vitest";
import { tellWhatIsCutOff } from "./cutOff";

function named(text: string, wide: number, room: number): HTMLElement {
  const one = document.body.appendChild(document.createElement("span"));
  one.className = "truncate";
  one.textContent = text;
  Object.defineProperty(one, "scrollWidth", { value: wide, configurable: true });
  Object.defineProperty(one, "clientWidth", { value: room, configurable: true });
  return one;
}
const point = (at: Element) => at.dispatchEvent(new Event("pointerover", { bubbles: true }));

it("tells a text whole where it is cut off, anew when it changes, and no more where it fits", () => {
  const end = tellWhatIsCutOff();
  const name = named("A name as long as they get", 200, 80);
  point(name);
  expect(name.title).toBe("A name as long as they get");
  name.textContent = "Another that is too long";
  point(name);
  expect(name.title).toBe("Another that is too long");
  Object.defineProperty(name, "scrollWidth", { value: 80 });
  point(name);
  expect(name.title).toBe("");
  end();
});

it("leaves a tip that says more, and what fits, as they are", () => {
  const end = tellWhatIsCutOff();
  const explained = named("Kick", 200, 80);
  explained.title = "48 V is on here";
  const fits = named("Kick", 40, 80);
  point(explained);
  point(fits);
  expect([explained.title, fits.title]).toEqual(["48 V is on here", ""]);
  end();
  const later = named("Not listened to any more", 200, 80);
  point(later);
  expect(later.title).toBe("");
});
