import { act, cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { store } from "../data/show";
import { Guarded } from "./Guarded";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

let broken = true;

function View() {
  if (broken) throw new Error("no such sheet");
  return <p>a sheet</p>;
}

it("keeps what goes wrong to itself, says so, and draws again when asked", () => {
  vi.spyOn(console, "error").mockImplementation(() => undefined); // React tells of it, rightly
  broken = true;
  render(
    <>
      <Guarded what="This view">
        <View />
      </Guarded>
      <p>beside it</p>
    </>,
  );
  expect(screen.getByRole("alert").textContent).toContain("This view could not be drawn");
  expect(screen.getByRole("alert").textContent).toContain("no such sheet");
  expect(screen.getByText("beside it")).toBeTruthy();
  broken = false;
  fireEvent.click(screen.getByRole("button"));
  expect(screen.getByText("a sheet")).toBeTruthy();
});

it("draws again by itself once the show has moved on", () => {
  vi.spyOn(console, "error").mockImplementation(() => undefined);
  broken = true;
  render(
    <Guarded what="This view">
      <View />
    </Guarded>,
  );
  expect(screen.getByRole("alert")).toBeTruthy();
  broken = false;
  act(() => store.setState({ revision: (store.getState().revision ?? 0) + 1 }));
  expect(screen.getByText("a sheet")).toBeTruthy();
});
