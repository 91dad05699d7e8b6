import { fireEvent, screen } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import { draw, fetched, pretend } from "../../testing/pretend";

const asked = () => fetched.mock.calls.map(([path]) => path).join(" ");

beforeEach(() => pretend({}));

it("opens at the sheet of the view that one came from", async () => {
  const page = draw("/scenes");
  fireEvent.click(screen.getByRole("link", { name: "Print or export" }));
  expect(page.at()).toBe("/paper?sheet=cues");
  await vi.waitFor(() => expect(asked()).toContain("cues"));
});

it("begins with the input list where one comes from nowhere, and when a sheet is not there", async () => {
  draw("/paper?sheet=none-such");
  await vi.waitFor(() => expect(asked()).toContain("none-such"));
  await vi.waitFor(() => expect(asked()).toContain("input-list")); // the first was refused
});
