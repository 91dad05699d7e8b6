import { act, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { useState } from "react";
import { beforeEach, expect, it } from "vitest";
import { asks, done, inPage, pretend } from "../testing/pretend";
import { Entry } from "./Entry";
import { MakeForm } from "./MakeForm";

beforeEach(() => pretend({}));

function Line() {
  const [name, setName] = useState("");
  return (
    <MakeForm
      label="New line"
      ask={name ? { action: "add_line", name } : null}
      fields={[[name, setName]]}
      word="Make"
    >
      <Entry label="Name" value={name} onChange={setName} />
    </MakeForm>
  );
}

it("gives the hand back to its field when what was typed is made by its key", async () => {
  render(inPage(<Line />));
  const field = screen.getByLabelText("Name");
  fireEvent.change(field, { target: { value: "Flute" } });
  const make = screen.getByRole("button", { name: "Make" });
  act(() => make.focus());
  fireEvent.click(make);
  expect(asks()).toEqual([{ action: "add_line", name: "Flute" }]);
  await waitFor(() => expect(document.activeElement).toBe(field));
  expect(field).toHaveProperty("value", "");
});

it("has what was typed back where it is refused, unless something else is typed by then", async () => {
  let answer = (_: boolean) => {};
  const answered = () => new Promise<boolean>((settle) => (answer = settle));
  render(inPage(<Line />));
  const field = screen.getByLabelText("Name");
  const make = (name: string) => {
    fireEvent.change(field, { target: { value: name } });
    done.mockImplementationOnce(answered);
    fireEvent.submit(screen.getByRole("form", { name: "New line" }));
    expect(field).toHaveProperty("value", ""); // at once: the next can be typed
  };
  make("Flute");
  await act(async () => answer(false));
  expect(field).toHaveProperty("value", "Flute");
  make("Flute");
  fireEvent.change(field, { target: { value: "Oboe" } });
  await act(async () => answer(false));
  expect(field).toHaveProperty("value", "Oboe");
  make("Oboe");
  await act(async () => answer(true));
  expect(field).toHaveProperty("value", "");
});
