import { act, cleanup, fireEvent, render, screen } from "@testing-library/react";
import { useState } from "react";
import { afterEach, expect, it } from "vitest";
import { InRow, useRows, useTabIndex } from "./reach";

afterEach(cleanup);

function Key({ word, onPress }: { word: string; onPress?: () => void }) {
  return (
    <button type="button" tabIndex={useTabIndex()} onClick={onPress}>
      {word}
    </button>
  );
}

function Some({ across = false }) {
  const [keys, setKeys] = useState(["a", "b", "c"]);
  const rows = useRows(keys, { across });
  return (
    <ul {...rows.hand}>
      {keys.map((key) => (
        <InRow key={key} of={key} rows={rows}>
          <li data-row={key}>
            <Key word={`${key}1`} />
            <input aria-label={`${key}2`} defaultValue="word" />
            <Key
              word={`${key} out`}
              onPress={() => setKeys(keys.filter((other) => other !== key))}
            />
          </li>
        </InRow>
      ))}
    </ul>
  );
}

const key = (name: string) => screen.getByRole("button", { name });
const stops = () =>
  screen
    .getAllByRole("button")
    .filter((one) => one.tabIndex === 0)
    .map((one) => one.textContent);
const arrow = (name: string) => fireEvent.keyDown(document.activeElement!, { key: `Arrow${name}` });
const here = () =>
  document.activeElement?.getAttribute("aria-label") ?? document.activeElement?.textContent;

it("makes the controls of one row stops: at first of the first, then of the one in hand", () => {
  render(<Some />);
  expect(stops()).toEqual(["a1", "a out"]);
  act(() => key("c1").focus());
  expect(stops()).toEqual(["c1", "c out"]);
  arrow("Up");
  expect(here()).toBe("b1");
  arrow("Down");
  arrow("Down"); // there is no further row
  expect(here()).toBe("c1");
});

it("goes across by left and right, but not through what is being typed", () => {
  render(<Some across />);
  key("a1").focus();
  arrow("Down");
  expect(here()).toBe("a1");
  arrow("Right");
  expect(here()).toBe("b1");
  const field = screen.getByLabelText("b2") as HTMLInputElement;
  field.focus();
  field.setSelectionRange(2, 2);
  arrow("Left");
  expect(here()).toBe("b2");
  field.select();
  arrow("Left");
  expect(here()).toBe("a2");
});

it("keeps the hand when its row is taken away, also the last", () => {
  render(<Some />);
  for (const [row, next] of [
    ["b", "c1"],
    ["c", "a1"],
  ] as const) {
    key(`${row} out`).focus();
    fireEvent.click(key(`${row} out`));
    expect(here()).toBe(next);
  }
});
