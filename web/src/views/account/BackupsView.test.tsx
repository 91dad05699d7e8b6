import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import * as http from "../../data/http";
import type { Backups } from "../../data/types";
import { lacking } from "./BackupHint";
import { BackupsView, bytesText } from "./BackupsView";

const NOW: Backups = {
  folder: "/var/backups/ombrel",
  same_disk: false,
  at: "05:00",
  next: "2026-12-03T05:00:00Z",
  standing: "none",
  running: false,
  failed: "",
  failed_at: null,
  backups: [],
};

beforeEach(() => vi.useFakeTimers({ shouldAdvanceTime: true }));
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.restoreAllMocks();
});

test("one that is being made is looked after until it is there", async () => {
  const told = vi.spyOn(http, "getBackups");
  told
    .mockResolvedValueOnce({ ...NOW, running: true })
    .mockResolvedValue({ ...NOW, running: false });
  render(<BackupsView />);
  expect(await screen.findByText("Making one…")).toHaveProperty("disabled", true);
  await vi.advanceTimersByTimeAsync(1_100);
  expect(await screen.findByText("Make one now")).toHaveProperty("disabled", false);
  const asked = told.mock.calls.length;
  await vi.advanceTimersByTimeAsync(5_000);
  expect(told.mock.calls.length).toBe(asked); // and then it is left alone
});

test("a server that does not answer is told, and what was there stays", async () => {
  vi.spyOn(http, "getBackups").mockResolvedValue(NOW);
  vi.spyOn(http, "makeBackup").mockRejectedValue(new Error("The server does not answer."));
  render(<BackupsView />);
  (await screen.findByText("Make one now")).click();
  expect((await screen.findByRole("alert")).textContent).toBe("The server does not answer.");
  expect(screen.getByText(/Each night at 05:00/)).toBeTruthy();
});

test("what lacks is said in the order of what it costs, and no first night is no fault", () => {
  expect(lacking({ standing: "none", failed: "" })).toBe("");
  expect(lacking({ standing: "good", failed: "" })).toBe("");
  expect(lacking({ standing: "late", failed: "" })).toMatch(/a night old/);
  expect(lacking({ standing: "late", failed: "no disk" })).toMatch(/failed/);
});

test.each([
  [999, "999 bytes"],
  [1_000, "1 KB"],
  [812_400, "812 KB"],
  [4_100_000, "4.1 MB"],
])("%i bytes are %s", (bytes, says) => expect(bytesText(bytes)).toBe(says));
