import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
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
