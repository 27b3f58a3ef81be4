import { QueryCache, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { Component, type ReactNode } from "react";
import { RouterProvider } from "react-router";
import { ApiProblem, comesAgain, isAway } from "../api/client";
import { sessionKeys } from "../features/account";
import { Button } from "../ui/Button";
import { router } from "./router";

const client: QueryClient = new QueryClient({
  queryCache: new QueryCache({
    onError: (error, query) => {
      // A session that ended elsewhere, or is somebody else's by now: ask again who is signed in, and the pages follow.
      const another = error instanceof ApiProblem && (error.status === 401 || error.type === "other-account");
      if (another && query.queryKey[0] !== sessionKeys.current[0]) {
        void client.invalidateQueries({ queryKey: sessionKeys.current });
      }
    },
  }),
  defaultOptions: {
    queries: {
      retry: (failures, error) => isAway(error) && failures < 1,
      retryDelay: 500,
      staleTime: 5_000,
      // A page that could not be fetched comes by itself once it can be.
      refetchInterval: (query) => query.state.status === "error" && comesAgain(query.state.error) && ASK_AGAIN,
    },
  },
});

/** How often to ask again for what the server could not give, in milliseconds. */
const ASK_AGAIN = 2_000;

/** The last resort: says that the page broke, and offers to load it again. */
class Boundary extends Component<{ children: ReactNode }, { broken: boolean }> {
  override state = { broken: false };

  static getDerivedStateFromError() {
    return { broken: true };
  }

  override render() {
    if (!this.state.broken) {
      return this.props.children;
    }
    return (
      <main className="mx-auto max-w-xl p-10">
        <h1>This page broke</h1>
        <p className="my-3">Grades that were not sent yet are kept in this browser. Load the page again to go on.</p>
        <Button tone="primary" onClick={() => location.reload()}>
          Load again
        </Button>
      </main>
    );
  }
}

export function App() {
  return (
    <Boundary>
      <QueryClientProvider client={client}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </Boundary>
  );
}
