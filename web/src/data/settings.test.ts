import { beforeEach, expect, it, vi } from "vitest";
import { actOf } from "../frame/keys";
import { answers, fetched } from "../testing/pretend";
import { choose, habits, tellHabits, themeOf } from "./settings";
import { whenText } from "./words";

const PLAIN = { ctrlKey: false, metaKey: false, altKey: false, shiftKey: false };

beforeEach(() => {
  localStorage.clear();
  tellHabits({});
});

it("keeps a choice at once, and with the server", async () => {
  choose({ theme: "daylight" });
  expect(habits.getState().theme).toBe("daylight");
  await vi.waitFor(() => expect(fetched).toHaveBeenCalled());
  const [path, how] = fetched.mock.calls.at(-1)!;
  expect([path, how?.method]).toEqual(["/api/me/habits", "PATCH"]);
  expect(JSON.parse(String(how?.body))).toEqual({ theme: "daylight" }); // another machine's stay
});

it("tells the server later what was chosen while it was away, and only that", async () => {
  choose({ theme: "daylight" }); // away: nothing answers
  await vi.waitFor(() => expect(fetched).toHaveBeenCalled());
  fetched.mockClear();
  answers.set("/api/me/habits", {});
  tellHabits({ theme: "dusk", clock: "12" }); // the next page
  expect(habits.getState()).toMatchObject({ theme: "daylight", clock: "12" });
  await vi.waitFor(() => expect(fetched).toHaveBeenCalled());
  await vi.waitFor(() => expect(localStorage.getItem("habits unsent")).toBeNull());
  tellHabits({ theme: "dusk" });
  expect(habits.getState().theme).toBe("dusk");
});

it("follows the system's theme where that is wanted", () => {
  vi.stubGlobal("matchMedia", () => ({ matches: true }));
  expect([themeOf(habits.getState()), themeOf({ ...habits.getState(), theme: "system" })]).toEqual([
    "dusk",
    "daylight",
  ]);
  vi.unstubAllGlobals();
});

it("tells hours and dates as a person reads them", () => {
  const then = new Date(2026, 10, 3, 18, 5).toISOString();
  expect(whenText(then)).toBe("2026-11-03 18:05");
  tellHabits({ clock: "12", date: "day_first" });
  expect(whenText(then)).toBe("03.11.2026 6:05 pm");
  tellHabits({ clock: "12", date: "month_first" });
  expect(whenText(new Date(2026, 10, 3, 0, 5).toISOString())).toBe("11/03/2026 12:05 am");
});

it("takes single letters as keys only from who wants them; the others stay", () => {
  const key = (key: string) => actOf("run", { ...PLAIN, key });
  expect([key("g"), key(" ")]).toEqual(["go", "go"]);
  tellHabits({ letters: false });
  expect([key("g"), key(" "), key("ArrowUp")]).toEqual([null, "go", "before"]);
  expect(actOf("everywhere", { ...PLAIN, key: "/" })).toBeNull();
  expect(actOf("everywhere", { ...PLAIN, key: "k", ctrlKey: true })).toBe("find");
});
