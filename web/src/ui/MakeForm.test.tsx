import { act, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { useState } from "react";
import { beforeEach, expect, it } from "vitest";
import { asks, inPage, pretend } from "../testing/pretend";
import { Entry } from "./Entry";
import { MakeForm } from "./MakeForm";

beforeEach(() => pretend({}));

function Line() {
  const [name, setName] = useState("");
  return (
    <MakeForm
      label="New line"
      ask={name ? { action: "add_line", name } : null}
      onMade={() => setName("")}
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
