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
    const replace = !isChosen(new URLSearchParams(location.search), new URLSearchParams(search));
    void router.navigate({ pathname: location.pathname, search: `?${search}` }, { replace });
  };

/** Whether one chose another log or room, so that Back leads to the one before; frames, and the rooms that they lead into, are only passed. */
function isChosen(was: URLSearchParams, is: URLSearchParams): boolean {
  const changes = (key: string): boolean => was.has(key) && was.get(key) !== is.get(key);
  return changes("log") || (changes("room") && was.get("f") === is.get("f"));
}
