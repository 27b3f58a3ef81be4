import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import { at } from "../../api/base";
import { Button } from "../../ui/Button";
import { moment } from "../../ui/format";
import { Note } from "../../ui/Note";
import { Trouble } from "../../ui/Trouble";
import { addProvider, ownIdentities, removeProvider, waysIn } from "./api";
import { refusalOf } from "./Providers";

/** By which providers one signs in to one's own account. */
export function OwnProviders() {
  const client = useQueryClient();
  const [search] = useSearchParams();
  const ways = useQuery(waysIn());
  const own = useQuery(ownIdentities());
  const add = useMutation({ mutationFn: addProvider, onSuccess: ({ address }) => location.assign(at(address)) });
  const remove = useMutation({
    mutationFn: removeProvider,
    onSuccess: (left) => client.setQueryData(ownIdentities().queryKey, left),
  });
  const providers = ways.data?.providers ?? [];
  const refused = search.get("refused");
  if (providers.length === 0 || own.data === undefined) {
    return null;
  }
  const free = providers.filter((p) => !own.data.some((i) => i.provider === p.id));
  return (
    <section className="mt-10">
      <h2 className="mb-2">Signing in elsewhere</h2>
      {refused && (
        <Note tone="trouble" role="alert" className="mb-2">
          {refusalOf(refused)}
        </Note>
      )}
      <ul>
        {own.data.map((identity) => (
          <li
            key={identity.provider}
            className="flex flex-wrap items-center gap-3 border-t border-rule py-2 last:border-b"
          >
            <span>
              {identity.name}, as {identity.shownAs}
            </span>
            <span className="text-sm text-ink-soft">last used {moment(identity.usedAt)}</span>
            <Button
              className="ml-auto"
              disabled={remove.isPending}
              aria-label={`Not by ${identity.name} any more`}
              onClick={() => remove.mutate(identity.provider)}
            >
              Not any more
            </Button>
          </li>
        ))}
      </ul>
      <div className="mt-2 flex flex-wrap gap-2">
        {free.map((provider) => (
          <Button key={provider.id} disabled={add.isPending} onClick={() => add.mutate(provider.id)}>
            Sign in by {provider.name} as well
          </Button>
        ))}
      </div>
      <Trouble error={add.error ?? remove.error} className="mt-2" />
    </section>
  );
}
