import { fireEvent, screen, waitFor } from "@testing-library/react";
import { beforeEach, expect, it } from "vitest";
import { received, store } from "../../data/show";
import type { EarRow } from "../../data/types";
import { answers, asks, draw, fetched, press, pretend } from "../../testing/pretend";

const VALUES = {
  "mix/1/name": "Ears fiddle",
  "mix/1/format": "stereo",
  "mix/2/name": "Wedge",
  "mix/2/format": "mono",
  "mix/2/serves": "wedge",
};
const row = (told: Partial<EarRow>): EarRow => ({
  mix: "mix/1",
  name: "Ears fiddle",
  who: "Aoife",
  serves: "ears",
  outputs: ["Deck 5"],
  packs: ["Ear pack 3"],
  selves: ["channel/3"],
  self_names: ["Fiddle"],
  stands: "over",
  over_db: 1.25,
  aim_db: 3,
  short_db: 1.75,
  bad: true,
  missing: [],
  cues: ["Click"],
  silent_now: [],
  unknown: [],
  loudest: [{ source: "channel/3", name: "Fiddle", dbfs: -12, own: true }],
  dbfs: -9,
  ceiling_dbfs: -3,
  ceiling_db: 2,
  taps: [],
  late_ms: 1.2,
  started: false,
  locked: false,
  lock_reason: "",
  ...told,
});
const tell = (rows: EarRow[], locked = false) =>
  received({ type: "ears", rows, locked, lock_reason: locked ? "doors" : "" });

beforeEach(() => {
  answers.clear();
  answers.set("/links", []);
  pretend(VALUES);
});

it("reads who stands how in the order that it is told, with what is missing and how loud it is", async () => {
  draw("/ears");
  tell([row({}), row({ mix: "mix/2", name: "Wedge", who: "", stands: "none", cues: [] })]);
  await screen.findByText("Aoife");
  const text = screen.getByLabelText("Mixes").textContent;
  expect(text).toContain("+1.3");
  expect(text).toContain("Click");
  expect(text).toContain("themselves −12");
  expect(text).toContain("−9 / −3");
  expect(text.indexOf("Aoife")).toBeLessThan(text.indexOf("plays nothing itself"));
});

it("trims, ends and locks a mix that is unfolded, and leaves starting over until there is a start", async () => {
  draw("/ears/1");
  tell([row({})]);
  fireEvent.click(await screen.findByLabelText("−1 dB for Ears fiddle"));
  expect(screen.getByText<HTMLButtonElement>("Start over").disabled).toBe(true);
  const ceiling = screen.getByLabelText("Ceiling of Ears fiddle");
  fireEvent.change(ceiling, { target: { value: "-4" } });
  fireEvent.keyDown(ceiling, { key: "Enter" });
  press("Lock…");
  fireEvent.change(screen.getByLabelText("Reason for the lock"), { target: { value: "check" } });
  press("Lock");
  await waitFor(() => expect(asks()).toHaveLength(3));
  expect(asks()).toEqual([
    { action: "trim_mixes", mixes: "mix 1", step: "−1", strips: "" },
    { action: "moves", moves: [{ address: "mix/1/ceiling", typed: "-4" }] },
    { action: "lock_mixes", mixes: "mix 1", locked: true, reason: "check" },
  ]);
});

const LINK = {
  id: "11111111-1111-4111-8111-111111111111",
  who: "Aoife",
  mixes: ["mix/1"],
  made_at: "2026-06-01T12:00:00Z",
  ends_at: null,
  ended: false,
  phones: 0,
  open: 0,
  moved_at: null as string | null,
};

it("has who calls first, turns back what their phone moved, and gives a code for an hour", async () => {
  answers.set("/links", [{ ...LINK, open: 1, phones: 1, moved_at: "2026-06-01T12:00:00Z" }]);
  draw("/ears/1");
  const other = row({ mix: "mix/2", name: "Wedge", who: "Bo" });
  tell([other, row({})]);
  received({
    type: "calls",
    calls: [
      { id: LINK.id, who: "Aoife", mix: "mix/1", text: "too loud", at: "2026-06-01T12:00:00Z" },
    ],
  });
  await screen.findByText("phone open");
  const text = screen.getByLabelText("Mixes").textContent;
  expect(text.indexOf("Aoife")).toBeLessThan(text.indexOf("Bo"));
  expect(text).toContain("moved 2026-06-01");
  answers.set("/undo", { revision: 9, says: "Undone by ann at the desk: louder" });
  press("Take back their last move");
  await waitFor(() => expect(store.getState().notices.at(-1)?.text).toContain("Undone by ann"));
  const ends = new Date(Date.now() + 3_600_000).toISOString();
  answers.set("/codes", [{ link: LINK.id, who: "Aoife", code: "012345", ends_at: ends }]);
  press("Short code…");
  expect((await screen.findByTestId("code")).textContent).toBe("012 345");
});

it("makes a link, which is shown this once", async () => {
  draw("/ears/1");
  tell([row({})]);
  await screen.findByText("No link yet", { exact: false });
  answers.set("/links/all", [{ link: LINK, token: "abc", code: "data:," }]);
  press("Make 1 link…");
  expect((await screen.findByTestId("link")).textContent).toContain("/mine#abc");
  expect(fetched).toHaveBeenCalled();
});

it("says why all phones are locked, and opens them by one press", async () => {
  draw("/ears");
  tell([row({ locked: true })], true);
  await screen.findByText("doors", { exact: false });
  press("Unlock all");
  await waitFor(() => expect(asks()).toEqual([{ action: "lock_mixes", locked: false }]));
});
