import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { useState } from "react";
import { afterEach, expect, it, vi } from "vitest";
import { WholeField } from "./whole-field.tsx";

afterEach(cleanup);

it("a drag on the label names one stroke for all its values, and ends it; what is typed belongs to none", async () => {
  const told: [number, string | undefined][] = [];
  const ended = vi.fn();
  function Shown() {
    const [value, setValue] = useState(5);
    return (
      <WholeField
        label="Lives"
        range={[1, 9]}
        value={value}
        onValue={(next, stroke) => {
          told.push([next, stroke]);
          setValue(next);
        }}
        onStrokeEnd={ended}
      />
    );
  }
  render(<Shown />);
  const label = screen.getByText("Lives");
  label.setPointerCapture = () => undefined;
  fireEvent.pointerDown(label, { clientX: 0, pointerId: 1 });
  for (const clientX of [9, 17, 400]) fireEvent.pointerMove(label, { clientX, pointerId: 1 });
  fireEvent.pointerUp(label, { pointerId: 1 });
  expect(told.map(([value]) => value)).toEqual([6, 7, 9]);
  expect(new Set(told.map(([, stroke]) => stroke)).size).toBe(1);
  expect([typeof told[0]![1], ended.mock.calls.length]).toEqual(["string", 1]);
  const user = userEvent.setup();
  const input = screen.getByLabelText("Lives");
  await user.clear(input);
  await user.type(input, "3{Enter}");
  expect(told.at(-1)).toEqual([3, undefined]);
});
