import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { useState } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { NumberRange } from "./number-field.tsx";
import { NumberField } from "./number-field.tsx";

afterEach(cleanup);

const whole: NumberRange = { min: 1, max: 48, whole: true };

/** The field with what it was given, and what it told. */
function field({
  range = whole,
  begin = 16,
  step = 1,
  takes = () => true,
}: {
  readonly range?: NumberRange;
  readonly begin?: number;
  readonly step?: number;
  readonly takes?: (value: number) => boolean;
} = {}) {
  const told: [number, boolean][] = [];
  const ended = vi.fn();
  function Shown() {
    const [value, setValue] = useState(begin);
    return (
      <NumberField
        label="Width"
        range={range}
        unit="px"
        value={value}
        step={step}
        onValue={(next, stroke) => {
          told.push([next, stroke !== null]);
          if (!takes(next)) return false;
          setValue(next);
          return true;
        }}
        onStrokeEnd={ended}
      />
    );
  }
  render(<Shown />);
  return { told, ended, input: screen.getByLabelText<HTMLInputElement>("Width") };
}

describe("a number field", () => {
  it("takes what is typed with Enter, or when one leaves it, once", async () => {
    const user = userEvent.setup();
    const { told, input } = field();
    await user.clear(input);
    await user.type(input, "12{Enter}");
    expect([input.value, told]).toEqual(["12", [[12, false]]]);
    await user.clear(input);
    await user.type(input, "20");
    expect(told).toHaveLength(1);
    await user.tab();
    expect([input.value, told.at(-1)]).toEqual(["20", [20, false]]);
    // The same again is no edit.
    await user.click(input);
    await user.tab();
    expect(told).toHaveLength(2);
  });

  it.each(["0", "-3", "3.5", "49", "", "wide"])(
    "keeps %j, which may not be, in the field to be corrected, and says what may",
    async (typed) => {
      const user = userEvent.setup();
      const { told, input } = field();
      await user.clear(input);
      if (typed !== "") await user.type(input, typed);
      await user.tab();
      expect([input.value, input.getAttribute("aria-invalid"), told]).toEqual([typed, "true", []]);
      expect(screen.getByRole("status").textContent).toBe("Width: a whole number from 1 to 48 px");
      await user.click(input);
      await user.keyboard("{Escape}");
      expect([input.value, input.getAttribute("aria-invalid")]).toEqual(["16", "false"]);
    },
  );

  it("reads a comma as a point where decimals may be", async () => {
    const user = userEvent.setup();
    const { told, input } = field({ range: { min: 0.25, max: 8, whole: false }, begin: 1 });
    await user.clear(input);
    await user.type(input, "1,5{Enter}");
    expect([input.value, told]).toEqual(["1.5", [[1.5, false]]]);
  });

  it("steps with the arrows, ten at a time with Shift, and stops at its ends", async () => {
    const user = userEvent.setup();
    const { told, input } = field();
    await user.click(input);
    await user.keyboard("{ArrowUp}{ArrowUp}{ArrowDown}");
    expect(told.map(([value]) => value)).toEqual([17, 18, 17]);
    await user.keyboard("{Shift>}{ArrowUp}{ArrowUp}{ArrowUp}{ArrowUp}{/Shift}");
    expect(told.map(([value]) => value).slice(3)).toEqual([27, 37, 47, 48]);
    await user.keyboard("{ArrowUp}");
    expect([input.value, told.length]).toEqual(["48", 7]);
  });

  it("is dragged by its label: all of a drag is one stroke", () => {
    const { told, ended } = field();
    const label = screen.getByText("Width");
    label.setPointerCapture = () => undefined;
    fireEvent.pointerDown(label, { clientX: 100, pointerId: 1 });
    fireEvent.pointerMove(label, { clientX: 108 });
    fireEvent.pointerMove(label, { clientX: 109 });
    fireEvent.pointerMove(label, { clientX: 124 });
    fireEvent.pointerMove(label, { clientX: -900 });
    expect(told).toEqual([
      [17, true],
      [19, true],
      [1, true],
    ]);
    expect(ended).not.toHaveBeenCalled();
    fireEvent.pointerUp(label);
    fireEvent.pointerMove(label, { clientX: 300 });
    expect([ended.mock.calls.length, told.length]).toEqual([1, 3]);
  });

  it("keeps what was refused all the same", async () => {
    const user = userEvent.setup();
    const { told, input } = field({ takes: (value) => value < 40 });
    await user.clear(input);
    await user.type(input, "44{Enter}");
    expect([input.value, told]).toEqual(["44", [[44, false]]]);
  });
});
