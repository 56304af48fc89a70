import { Suspense, lazy } from "react";

const SettingShown = lazy(() => import("./setting-shown.tsx"));

/** Two values of a setting as they walk, for settings that words explain badly; what runs them is loaded when it is needed. */
export function ShownMoving(props: { readonly path: string; readonly value: unknown }) {
  return (
    <Suspense fallback={null}>
      <SettingShown {...props} />
    </Suspense>
  );
}
