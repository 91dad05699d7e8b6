import { act, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { beforeEach, describe, expect, it } from "vitest";
import { received, store } from "../../data/show";
import { noticed, preview } from "../../testing/messages";
import {
  asks,
  done,
  draw,
  moved,
  movesOf,
  press,
  pretend,
  tried,
  type,
} from "../../testing/pretend";

const VALUES = {
  "line/1/place": 1,
  "line/1/name": "Fiddle",
  "line/1/socket": "input/local/1",
  "line/2/place": 2,
  "line/2/name": "Keys",
  "line/2/stereo": true,
  "line/2/socket": "input/local/3",
  "line/2/socket_right": "input/local/4",
  "line/3/place": 3,
  "line/3/name": "Fife",
  "line/3/socket": "input/local/6",
  "channel/1/name": "Fiddle",
  "channel/1/source": "input/local/1",
  "channel/2/name": "Fiddle again",
  "channel/2/source": "input/local/1",
  "channel/3/source": "input/local/3",
  "channel/3/spare": "input/local/9",
};
const socket = (number: number) =>
  document.querySelector<HTMLElement>(`[data-socket="input/local/${number}"]`)!;
const channel = (number: number) =>
  within(document.querySelector<HTMLElement>(`[data-channel="${number}"]`)!);
const key = (number: number) => within(socket(number)).getAllByRole("button")[0]!;
const field = (label: string) =>
  screen.getByLabelText<HTMLInputElement>(label, { selector: "input" });
const chosen = () => field("Sockets").value;

beforeEach(() => {
  tried.mockImplementation(() => Promise.resolve(preview()));
  pretend(VALUES);
});

describe("sockets and channels", () => {
  it("say what is plugged in where, what it feeds, and who shares a preamp", () => {
    draw("/patch");
    const box = screen.getByRole("tab", { name: /Deck/ });
    expect(box.textContent).toBe("Deck 4/24");
    expect(key(3).textContent).toBe("Deck 3Keys L");
    expect(key(4).textContent).toBe("Deck 4Keys R");
    expect(key(5).textContent).toBe("Deck 5free");
    expect(socket(1).textContent).toContain("⚭ 1, 2");
    expect(socket(3).textContent).toContain("ch 3");
    expect(channel(2).getByText("shares its preamp with channel 1")).toBeTruthy();
    moved({ "channel/3/on_spare": true });
    expect(socket(3).textContent).not.toContain("ch 3");
    expect(socket(9).textContent).toContain("nothing plugged in");
    expect(channel(3).getByLabelText("Channel 3 fed by its spare").textContent).toBe("spare");
  });

  it("are found by line, socket or number", () => {
    draw("/patch");
    const find = (value: string) =>
      fireEvent.change(screen.getByLabelText("Find lines and channels"), { target: { value } });
    find("keys");
    expect(document.querySelectorAll("[data-socket]")).toHaveLength(2);
    find("fiddle again");
    expect(document.querySelectorAll("[data-channel]")).toHaveLength(1);
  });

  it("are chosen by a drag, by Shift and by arrows, and only where they are seen", () => {
    draw("/patch");
    fireEvent.pointerDown(key(2), { pointerType: "mouse" });
    fireEvent.pointerEnter(key(4));
    fireEvent.pointerUp(key(4));
    expect(chosen()).toBe("Deck 2-4");
    fireEvent.pointerEnter(key(9)); // let go of: no drag
    expect(chosen()).toBe("Deck 2-4");
    fireEvent.keyDown(key(5), { key: "Enter" });
    fireEvent.keyDown(key(5), { key: "ArrowDown", shiftKey: true });
    expect(chosen()).toBe("Deck 5-6");
    press("Clear");
    fireEvent.change(screen.getByLabelText("Find lines and channels"), { target: { value: "fi" } });
    fireEvent.pointerDown(key(1), { pointerType: "mouse" });
    fireEvent.pointerEnter(key(6));
    expect(chosen()).toBe("Deck 1, 6");
    fireEvent.keyDown(key(1), { key: "ArrowDown" });
    expect(document.activeElement).toBe(key(6));
  });

  it("are filled in one step after it was said who loses what", async () => {
    tried.mockImplementation(() =>
      Promise.resolve(preview({ losses: [{ who: "Channel 3", loses: "Deck 3", to: "nothing" }] })),
    );
    draw("/patch");
    fireEvent.keyDown(key(5), { key: "Enter" });
    press("Fill from channel 3");
    const ask = { action: "fill", sockets: "Deck 5", to: "3" };
    expect((await screen.findByTestId("consequence")).textContent).toContain(
      "Channel 3 loses Deck 3",
    );
    press("Patch");
    await waitFor(() => expect(chosen()).toBe(""));
    expect(asks()).toEqual([ask]);
    expect(tried.mock.calls.at(-1)![0]).toEqual(ask);
  });

  it("stay as they were typed where a fill is refused, and are let go of by Escape", async () => {
    draw("/patch");
    const typed = (label: string, value: string) =>
      fireEvent.change(field(label), { target: { value } });
    typed("Sockets", "Deck 1-99");
    typed("Channels", "1");
    done.mockImplementationOnce(() => Promise.resolve(false));
    press("Patch");
    await act(() => Promise.resolve());
    expect(chosen()).toBe("Deck 1-99");
    fireEvent.keyDown(field("Sockets"), { key: "Escape" });
    expect(chosen()).toBe("");
  });

  it("are typed into a channel: a source, a spare, a name; fixed, and switched to the spare", async () => {
    draw("/patch");
    type("Spare of channel 1", "local 8");
    type("Name of channel 3", "Piano");
    fireEvent.click(channel(3).getByLabelText("Channel 3 fed by its source"));
    fireEvent.click(channel(1).getByLabelText("no, reserved, channel 1"));
    type("Source of channel 5", "local 12");
    await waitFor(() => expect(asks()).toHaveLength(5));
    expect(asks()[0]).toEqual({ action: "feed", channel: 1, socket: "local 8", spare: true });
    expect(asks().slice(1, 4).map(movesOf)).toEqual([
      { "channel/3/name": "Piano" },
      { "channel/3/on_spare": true },
      { "channel/1/fixed": true },
    ]);
    expect(asks()[4]).toEqual({ action: "feed", channel: 5, socket: "local 12" });
  });

  it("offer to patch the lines that are nowhere yet", () => {
    draw("/patch");
    expect(screen.getByText(/line has no socket or no channel/).textContent).toContain("1 line");
    press("Patch them in order");
    expect(asks()).toEqual([{ action: "patch_lines" }]);
    moved({ "channel/4/source": "input/local/6" });
    expect(screen.queryByText("Patch them in order")).toBeNull();
  });
});

describe("preamps", () => {
  const preamp = { socket: "input/local/1", dbfs: 3, over: true, suggested_db: 24 };
  const tell = (more: object = {}) =>
    act(() => received(noticed({ preamps: [{ ...preamp, ...more }] })));

  it("say what arrives behind them, and past full scale", () => {
    draw("/patch");
    tell();
    expect(within(socket(1)).getByText(/^over/).title).toBe(
      "Past full scale; 24 dB of gain would suit",
    );
    tell({ dbfs: -18, over: false });
    expect(within(socket(1)).getByText("−18").title).toBe("24 dB of gain would suit");
  });

  it("are typed by hand, all set to the target, and take two presses for 48 V", () => {
    draw("/patch");
    type("Gain of Deck 1", "+3");
    type("Target level in dBFS", "-20");
    press("Set all gains to it");
    const phantom = () => within(socket(1)).getByRole("button", { name: /48 V/ });
    fireEvent.click(phantom());
    expect(asks()).toHaveLength(3);
    fireEvent.click(phantom());
    expect(movesOf(asks()[0]!)).toEqual({ "input/local/1/gain": "+3" });
    expect(movesOf(asks()[1]!)).toEqual({ "show/target_dbfs": "-20" });
    expect(asks()[2]).toEqual({ action: "suggest_gains" });
    expect(movesOf(asks()[3]!)).toEqual({ "input/local/1/phantom": true });
  });
});

describe("as a grid", () => {
  const grid = () => screen.getByRole("grid", { name: "Sockets against channels" });
  const press_ = (name: string) => fireEvent.keyDown(grid(), { key: name });

  beforeEach(() => {
    draw("/patch");
    press("As a grid");
  });

  it("marks what feeds what with the first letter of the line, and spares", () => {
    const marks = within(grid())
      .getAllByRole("gridcell")
      .filter((cell) => !cell.hasAttribute("aria-selected")) // where the cursor is
      .map((mark) => `${mark.getAttribute("aria-label")}: ${mark.textContent}`);
    expect(marks).toEqual([
      "Deck 1 feeds channel 1, as it does others: F",
      "Deck 1 feeds channel 2, as it does others: F",
      "Deck 3 feeds channel 3: K",
      "Deck 9 is the spare of channel 3: ",
    ]);
  });

  it("patches a free channel at once by Enter, and takes it away again", () => {
    for (let step = 0; step < 4; step++) press_("ArrowRight");
    press_("ArrowDown");
    expect(screen.getByRole("status").textContent).toContain("Deck 2  → channel 5");
    press_("Enter");
    expect(asks()).toEqual([{ action: "feed", channel: 5, socket: "Deck 2" }]);
    expect(store.getState().selected?.source).toBe("channel/5");
  });

  it("shows first what a channel would lose, taken by Enter and left by Escape", async () => {
    press_("Enter"); // channel 1 has this socket: it would be taken away
    await screen.findByTestId("consequence");
    press_("Escape");
    expect(done).not.toHaveBeenCalled();
    press_("ArrowDown");
    press_("Enter");
    await screen.findByTestId("consequence");
    press_("Enter");
    await waitFor(() => expect(asks()).toEqual([{ action: "feed", channel: 1, socket: "Deck 2" }]));
  });

  it("is found in by box, socket or line", () => {
    fireEvent.change(screen.getByLabelText("Find sockets and lines"), {
      target: { value: "keys" },
    });
    expect(grid().getAttribute("aria-rowcount")).toBe("3"); // two sockets, and the heads
    press_("Enter");
    expect(asks()).toEqual([]); // channel 1 has a source: shown first
  });
});
