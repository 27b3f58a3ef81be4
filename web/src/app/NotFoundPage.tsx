import { Link } from "react-router";
import { useTitle } from "../ui/useTitle";

export function NotFoundPage() {
  useTitle("No such page");
  return (
    <main className="mx-auto max-w-xl p-10">
      <h1>There is no such page</h1>
      <p className="mt-3">
        The address may be mistyped. <Link to="/">Go to your sheets and studies</Link>.
      </p>
    </main>
  );
}
