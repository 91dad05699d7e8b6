import { act, cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { received, store } from "../data/show";
import { Fader } from "./Fader";
import { runs } from "./ranges";
import { TypedField } from "./TypedField";
import { type Mark, placeAlong, travelOf } from "./travel";

const MARKS: Mark[] = [
  [-80, 0.02],
  [-15, 0.5],
  [6, 1],
];

afterEach(cleanup);

describe("drawing sums", () => {
  it("places levels between the marks, rising, off at the very end", () => {
    expect(travelOf(null, MARKS)).toBe(0);
    expect(travelOf(-15, MARKS)).toBe(0.5);
    expect(travelOf(6, MARKS)).toBe(1);
    const levels = [-100, -80, -40, -15, -14.9, 0, 6];
    const places = levels.map((level) => travelOf(level, MARKS));
    expect(places).toEqual([...places].sort((a, b) => a - b));
  });

  it("keeps a pointer beside the box at its ends", () => {
    const box = { left: 100, width: 200 };
    expect([50, 100, 200, 300, 900].map((x) => placeAlong(x, box))).toEqual([0, 0, 0.5, 1, 1]);
  });

  it("writes numbers as people type them", () => {
    expect(runs([1, 2, 3, 7, 9, 10])).toBe("1-3, 7, 9-10");
    expect(runs([])).toBe("");
  });
});

describe("Fader", () => {
  const draw = (levelDb: number | null, muted = false) => {
    const onStep = vi.fn();
    render(
      <Fader
        label="Fiddle"
        address="channel/1/fader"
        levelDb={levelDb}
        marks={MARKS}
        colour="sea"
        muted={muted}
        onMove={() => {}}
        onRelease={() => {}}
        onStep={onStep}
      />,
    );
    return { fader: screen.getByRole("slider", { name: "Fiddle" }), onStep };
  };

  it("says its state in words", () => {
    expect(draw(-6, true).fader.getAttribute("aria-valuetext")).toBe("−6.0 dB, muted");
    cleanup();
    expect(draw(null).fader.getAttribute("aria-valuetext")).toBe("off");
  });

  it("is taken where it sounds while it is on its way, until somebody moves it", () => {
    const onMove = vi.fn();
    const points = [
      [0, -30],
      [60_000, 0],
    ] as const;
    const fade = { begun: performance.now(), points };
    store.setState({ fading: new Map([["channel/2/fader", fade]]) });
    render(
      <Fader
        label="Kora"
        address="channel/2/fader"
        levelDb={0}
        marks={MARKS}
        colour="sea"
        onMove={onMove}
        onRelease={() => {}}
        onStep={() => {}}
      />,
    );
    const fader = screen.getByRole("slider", { name: "Kora" });
    fader.setPointerCapture = () => {};
    fader.hasPointerCapture = () => false;
    fader.getBoundingClientRect = () => new DOMRect(0, 0, 200, 24);
    expect(fader.getAttribute("aria-valuetext")).toBe("−30.0 dB");
    const hand = { button: 0, pointerId: 1, pointerType: "mouse" };
    fireEvent.pointerDown(fader, { ...hand, clientX: 100 });
    fireEvent.pointerMove(fader, { ...hand, clientX: 110 });
    fireEvent.pointerUp(fader, { ...hand, clientX: 110 });
    expect(onMove.mock.calls[0]![0]).toBeCloseTo(travelOf(-30, MARKS) + 0.05, 6);
    act(() =>
      received({ type: "moved", before: 0, revision: 1, values: { "channel/2/fader": -3 } }),
    );
    expect(store.getState().fading.size).toBe(0);
    expect(fader.getAttribute("aria-valuetext")).toBe("0.0 dB"); // as its view has it
  });

  it("is taken where it stands, wherever on the track a hand comes down, and a click nudges", () => {
    const onMove = vi.fn();
    const onStep = vi.fn();
    render(
      <Fader
        label="Kora"
        address="channel/2/fader"
        levelDb={-15}
        marks={MARKS}
        colour="sea"
        onMove={onMove}
        onRelease={() => {}}
        onStep={onStep}
      />,
    );
    const fader = screen.getByRole("slider", { name: "Kora" });
    fader.setPointerCapture = () => {};
    fader.hasPointerCapture = () => false;
    fader.getBoundingClientRect = () => new DOMRect(0, 0, 200, 24);
    const hand = { button: 0, pointerId: 1, pointerType: "mouse" };
    fireEvent.pointerDown(fader, { ...hand, clientX: 180 });
    fireEvent.pointerUp(fader, { ...hand, clientX: 180 });
    fireEvent.pointerDown(fader, { ...hand, clientX: 10 });
    fireEvent.pointerUp(fader, { ...hand, clientX: 10 });
    expect(onMove).not.toHaveBeenCalled();
    expect(onStep.mock.calls).toEqual([["up 1"], ["down 1"]]);
    fireEvent.pointerDown(fader, { ...hand, clientX: 180 });
    fireEvent.pointerMove(fader, { ...hand, clientX: 200 });
    fireEvent.pointerUp(fader, { ...hand, clientX: 200 });
    expect(onMove.mock.calls.map(([travel]) => Number(travel.toFixed(3)))).toEqual([0.6]);
    // a finger that only rests moves nothing
    fireEvent.pointerDown(fader, { ...hand, pointerType: "touch", clientX: 10 });
    fireEvent.pointerUp(fader, { ...hand, pointerType: "touch", clientX: 10 });
    expect(onStep).toHaveBeenCalledTimes(2);
  });

  it("moves by keys, as typed steps that the core reads", () => {
    const { fader, onStep } = draw(-6);
    for (const [key, shiftKey] of [
      ["ArrowRight", false],
      ["ArrowLeft", true],
      ["Home", false],
    ] as const)
      fireEvent.keyDown(fader, { key, shiftKey });
    expect(onStep.mock.calls.map(([step]) => step)).toEqual(["up 1", "down 0.1", "off"]);
  });
});

describe("TypedField", () => {
  const draw = () => {
    const onCommit = vi.fn();
    render(
      <div data-grid>
        <TypedField label="one" value="a" onCommit={onCommit} data={{ "data-column": "x" }} />
        <TypedField label="two" value="b" onCommit={() => {}} data={{ "data-column": "x" }} />
      </div>,
    );
    return { field: screen.getByLabelText<HTMLInputElement>("one"), onCommit };
  };

  it("settles once on Enter and goes to the row below", () => {
    const { field, onCommit } = draw();
    field.focus();
    fireEvent.change(field, { target: { value: "up 2" } });
    fireEvent.keyDown(field, { key: "Enter" });
    expect(onCommit.mock.calls).toEqual([["up 2"]]);
    expect(document.activeElement).toBe(screen.getByLabelText("two"));
  });

  it("gives up on Escape and settles nothing when nothing was typed", () => {
    const { field, onCommit } = draw();
    field.focus();
    fireEvent.change(field, { target: { value: "z" } });
    fireEvent.keyDown(field, { key: "Escape" });
    field.focus();
    fireEvent.blur(field);
    expect(onCommit).not.toHaveBeenCalled();
    expect(field.value).toBe("a");
  });
});
