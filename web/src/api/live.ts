import { type QueryKey, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { at } from "./base";

/**
 * Fetches something anew whenever the server tells that it changed, for as long as it goes on. What is being fetched is not begun
 * anew, as a large board would never come; what changed meanwhile is fetched after it.
 */
export function useLive(address: string, queryKey: QueryKey, going: boolean) {
  const client = useQueryClient();
  const key = JSON.stringify(queryKey);
  useEffect(() => {
    if (!going) {
      return;
    }
    let fetching = false;
    let changed = false;
    async function follow() {
      changed = true;
      while (changed && !fetching) {
        changed = false;
        fetching = true;
        await client.refetchQueries({ queryKey: JSON.parse(key) as QueryKey, exact: true });
        fetching = false;
      }
    }
    const events = new EventSource(at(address));
    events.addEventListener("board", () => void follow());
    return () => events.close();
  }, [client, address, key, going]);
}
