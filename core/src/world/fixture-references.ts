import type { Fields } from "./field.ts";
import type { Place } from "./fixtures/portal.ts";
import type { Fixture } from "./fixtures.ts";
import { fieldsOf } from "./fixtures.ts";

/** Something of the world that a fixture names, and where in it. */
export type FixtureReference =
  | { readonly to: "item" | "circuit"; readonly id: string; readonly path: readonly string[] }
  | { readonly to: "place"; readonly place: Place; readonly path: readonly string[] };

type Values = Readonly<Record<string, unknown>>;

/** Everything that a fixture names, in the order of its fields. */
export function referencesOf(fixture: Fixture): FixtureReference[] {
  return inFields(fieldsOf(fixture.kind), fixture as unknown as Values, []);
}

function inFields(fields: Fields, values: Values, path: readonly string[]): FixtureReference[] {
  return Object.entries(fields).flatMap(([name, field]): FixtureReference[] => {
    const value = values[name];
    const at = [...path, name];
    if (field.type === "reference") return [{ to: field.to, id: value as string, path: at }];
    if (field.type === "place") return [{ to: "place", place: value as Place, path: at }];
    return field.type === "kinds"
      ? inFields(field.kinds[(value as { readonly kind: string }).kind]!, value as Values, at)
      : [];
  });
}

/** Whether a fixture names that item or circuit. */
export function refersTo(fixture: Fixture, to: "item" | "circuit", id: string): boolean {
  return referencesOf(fixture).some((each) => each.to === to && each.id === id);
}

/** Where a fixture leads. */
export function placesOf(fixture: Fixture): readonly Place[] {
  return referencesOf(fixture).flatMap((each) => (each.to === "place" ? [each.place] : []));
}

/** The fixture with the places that it leads to changed. */
export function withPlaces(fixture: Fixture, change: (place: Place) => Place): Fixture {
  const places = Object.entries(fieldsOf(fixture.kind)).filter(([, { type }]) => type === "place");
  if (places.length === 0) return fixture;
  const values = fixture as unknown as Values;
  return { ...fixture, ...Object.fromEntries(places.map(([name]) => [name, change(values[name] as Place)])) };
}
