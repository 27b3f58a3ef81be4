import { useMutation } from "@tanstack/react-query";
import { Link, useLocation } from "react-router";
import { Button } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { Trouble } from "../../ui/Trouble";
import { useTitle } from "../../ui/useTitle";
import { confirmAddress } from "./api";
import { Frontispiece } from "./Frontispiece";

/** Where the letter leads that asks whether an address is right. It is said with a press: programs follow links, too. */
export function AddressPage() {
  const token = useLocation().hash.slice(1);
  const confirm = useMutation({ mutationFn: confirmAddress });
  useTitle("Your address");
  return (
    <Frontispiece title="Is this your address?">
      {confirm.isSuccess ? (
        <Note tone="good" role="status">
          Mail reaches you from now on.
        </Note>
      ) : (
        <>
          <p className="mb-3">The letter came to the address that was named at Mossbank.</p>
          <Button tone="primary" disabled={confirm.isPending || token === ""} onClick={() => confirm.mutate({ token })}>
            Yes, it is mine
          </Button>
          <Trouble error={confirm.error} className="mt-3" />
        </>
      )}
      <p className="mt-4">
        <Link to="/">Go to Mossbank</Link>
      </p>
    </Frontispiece>
  );
}
