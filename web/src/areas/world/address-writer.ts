import type { createBrowserRouter } from "react-router";

/**
 * Says in the address what of a world is shown, unless one is on the way to somewhere else: that would call one back.
 * The router itself is asked, for what React shows may be behind it.
 */
export const addressWriter =
  (router: ReturnType<typeof createBrowserRouter>) =>
  (world: string, search: string): void => {
    const { navigation, location } = router.state;
    if (navigation.state !== "idle" || !location.pathname.startsWith(`/w/${world}/`)) return;
    void router.navigate({ pathname: location.pathname, search: `?${search}` }, { replace: true });
  };
