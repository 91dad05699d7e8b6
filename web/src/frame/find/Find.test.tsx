import { act, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { memoryLocation } from "wouter/memory-location";
import { habits } from "../../data/settings";
import { received, store } from "../../data/show";
import type { Found, FoundAnswer } from "../../data/types";
import { preview } from "../../testing/messages";
import { asks, inPage, pretend, tried, wished } from "../../testing/pretend";
import { Find } from "./Find";

const VALUES = {
  "channel/7/name": "Fiddle",
  "mix/2/name": "Ears fiddle",
  "mix/2/format": "stereo",
};
const closed = vi.fn();
const keys = vi.fn();
let place = memoryLocation({ path: "/hears", record: true });

const FADER: FoundAnswer["ask"] = {
  action: "moves",
  moves: [{ address: "channel/7/fader", value: -6 }],
  says: "Fiddle fader to −6 dB",
};
const answer = (told: Partial<FoundAnswer>): FoundAnswer => ({
  group: "go", title: "", about: "", ask: null, view: "", at: "", beside: "", here: null,
  careful: false, ...told,
}); // biome-ignore format: one answer
const FIDDLE = answer({ title: "Fiddle", about: "channel 7", view: "hears", at: "channel/7" });
const EARS = answer({ title: "Ears fiddle", about: "mix 2", view: "mixes", at: "mix/2" });
const TO_SIX = answer({ group: "change", title: "Fiddle fader to −6 dB", ask: FADER });

/** Whatever is typed has these answers, once they are let through. */
function answering(answers: FoundAnswer[], told: Partial<Found> = {}): void {
  const many = Object.fromEntries(answers.map((one) => [one.group, answers.length]));
  wished.mockImplementation((text) =>
    Promise.resolve({
      type: "found",
      id: text,
      text,
      instead: "",
      read: [],
      many,
      answers,
      ...told,
    }),
  );
}
const page = (open: boolean) =>
  inPage(
    <Find open={open} onOpenChange={closed} onKeys={keys} onNotices={keys} view="hears" />,
    place,
  );
const field = () => screen.getByRole("combobox", { name: "Find by name, number or wish" });
const type = (words: string) => fireEvent.change(field(), { target: { value: words } });
const options = () => screen.getAllByRole("option").map((one) => one.textContent);
const enter = (how = {}) => fireEvent.keyDown(field(), { key: "Enter", ...how });
const drawn = () => {
  place = memoryLocation({ path: "/hears", record: true });
  return render(page(true));
};
const typed = async (words: string) => {
  drawn();
  type(words);
  await screen.findAllByRole("option");
};

beforeEach(() => {
  closed.mockClear();
  localStorage.clear();
  pretend(VALUES);
  tried.mockImplementation(() => new Promise(() => {}));
});

describe("an answer", () => {
  it.each([
    [FIDDLE, "/hears"],
    [EARS, "/mixes/2"],
    [answer({ title: "Storm", view: "scenes", at: "scene/12" }), "/scenes/12"],
    [answer({ title: "Fiddle, EQ", view: "strip", at: "channel/7", beside: "eq" }), "/strip/channel/7"],
    [answer({ title: "Under the hand", view: "banks", at: "bank/2", beside: "channel/7" }), "/banks?hand=channel/7"],
    [answer({ title: "Mixes", view: "mixes" }), "/mixes"],
    [answer({ title: "A line", view: "lines", at: "line/9" }), "/lines?line=9"],
  ])("leads to its place", async (one, at) => {
    answering([one]);
    await typed("whatever");
    enter();
    expect(place.history.at(-1)).toBe(at);
    expect(closed).toHaveBeenCalledWith(false);
  }); // biome-ignore format: a table

  it("is walked by arrows with the hand in the field, told by its place, and chosen by a click", async () => {
    answering([FIDDLE, EARS]);
    await typed("fiddle");
    fireEvent.keyDown(field(), { key: "ArrowDown" });
    const [, second] = screen.getAllByRole("option");
    expect(field().getAttribute("aria-activedescendant")).toBe(second!.id);
    expect(second!.getAttribute("aria-selected")).toBe("true");
    fireEvent.click(second!);
    expect(place.history.at(-1)).toBe("/mixes/2");
    expect(store.getState().selected?.listener).toBe("mix/2");
  });

  it("that changes something is shown first, made by Enter, or made with Find left open", async () => {
    tried.mockResolvedValue(
      preview({ heard: [{ source: "Fiddle", listener: "House", was_db: -11.7, now_db: -9 }] }),
    );
    answering([TO_SIX]);
    await typed("fiddle -6");
    expect(await screen.findByText("For whom")).toBeTruthy();
    expect(screen.getByRole("row", { name: /House/ }).textContent).toContain("−11.7 → −9.0");
    enter({ ctrlKey: true });
    expect(asks()).toEqual([FADER]);
    expect(closed).not.toHaveBeenCalled();
    expect(screen.getByText(/Done: Fiddle fader/)).toBeTruthy();
    enter();
    expect(asks()).toHaveLength(2);
    expect(closed).toHaveBeenCalledWith(false);
  });

  it("that needs care is not made before it was seen what it does", async () => {
    let shows: (shown: ReturnType<typeof preview>) => void = () => {};
    tried.mockImplementation(() => new Promise((show) => (shows = show)));
    const go: FoundAnswer["ask"] = { action: "go", scene: "scene/1", sources: false };
    answering([answer({ group: "change", title: "Go: 1 Doors", ask: go, careful: true })]);
    await typed("go");
    await waitFor(() => expect(tried).toHaveBeenCalled());
    enter();
    expect(asks()).toEqual([]);
    await act(async () => shows(preview()));
    enter();
    expect(asks()).toEqual([go]);
  });

  it("of the screen's own is done here", async () => {
    answering([answer({ group: "do", title: "Light theme", here: "theme_light" })]);
    await typed("light");
    enter();
    expect(habits.getState().theme).toBe("daylight");
    answering([answer({ group: "do", title: "Every key", here: "keys" })]);
    type("keys");
    await screen.findByRole("option", { name: /Every key/ });
    enter();
    expect(keys).toHaveBeenCalled();
  });
});

it("keeps an Enter that came before the answers, and asks again behind what was typed last", async () => {
  const waiting: ((found: Found) => void)[] = [];
  wished.mockImplementation(() => new Promise((answered) => waiting.push(answered as never)));
  drawn();
  type("fiddle");
  enter();
  expect(closed).not.toHaveBeenCalled();
  const found = { type: "found" as const, id: "", instead: "", read: [], many: {} };
  await act(async () => waiting[0]!({ ...found, text: "fiddle", answers: [EARS] }));
  expect(place.history.at(-1)).toBe("/mixes/2");
});

it("says when nothing is called that, and what was meant by a slip", async () => {
  answering([], { text: "theremin" });
  drawn();
  type("theremin");
  expect(await screen.findByText("Nothing is called “theremin”.")).toBeTruthy();
  enter();
  expect(closed).not.toHaveBeenCalled();
  answering([FIDDLE], { instead: "fiddle" });
  type("fidlde");
  expect(await screen.findByText(/found for “fiddle”/)).toBeTruthy();
  expect(options()).toHaveLength(1);
});

it("finds names by itself while the server is away, and says so", async () => {
  drawn();
  act(() => store.setState({ status: "lost" }));
  type("ears fid");
  expect(screen.getByText(/Offline: names only/)).toBeTruthy();
  expect((await screen.findAllByRole("option"))[0]!.textContent).toContain("Ears fiddle");
  enter();
  expect(place.history.at(-1)).toBe("/mixes/2");
});

it("keeps what was wished before, and offers it", async () => {
  answering([FIDDLE]);
  await typed("fiddle");
  enter();
  const again = render(page(true));
  fireEvent.click(again.getByRole("button", { name: "fiddle" }));
  expect(await again.findAllByRole("option")).toHaveLength(1);
});

it("has the gain of a found channel in hand when it closes", async () => {
  const both = (shown: boolean) => (
    <>
      <div data-source-fields>
        <input aria-label="Gain" />
      </div>
      {page(shown)}
    </>
  );
  answering([FIDDLE]);
  const at = render(both(true));
  type("fiddle");
  await screen.findAllByRole("option");
  enter();
  at.rerender(both(false));
  await waitFor(() => expect(document.activeElement).toBe(screen.getByLabelText("Gain")));
  expect(store.getState().selected?.source).toBe("channel/7");
});

it("asks again when something was named meanwhile", async () => {
  answering([FIDDLE]);
  await typed("theremin");
  answering([answer({ title: "Theremin", view: "hears", at: "channel/7" })]);
  act(() =>
    received({ type: "moved", before: 1, revision: 2, values: { "channel/7/name": "Theremin" } }),
  );
  expect(await screen.findByRole("option", { name: /Theremin/ })).toBeTruthy();
});
