import { useState } from "react";
import { useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { useSend, useTakeBack } from "./api";
import { type Missing, missingOn } from "./missing";
import type { Desk } from "./useDesk";

type Sending = {
  /** What is still missing, once sending was tried. */
  missing: Missing[] | undefined;
  /** Where to go on after it was sent. */
  next: string | undefined;
  failure: Error | null;
  isPending: boolean;
  /** Sends the sheet in, or says what is missing. */
  send: () => Promise<void>;
  goOn: () => void;
  takeBack: (() => void) | undefined;
};

/** @param jump goes to something that is missing */
export function useSending(sheet: Schemas["SheetView"], desk: Desk, jump: (to: Missing) => void): Sending {
  const send = useSend(sheet.id);
  const takeBack = useTakeBack(sheet.id);
  const navigate = useNavigate();
  const [tried, setTried] = useState(false);
  const [next, setNext] = useState<string>();

  const onSent = ({ nextSheetId }: { nextSheetId?: string }) => {
    const after = nextSheetId ? `/sheets/${nextSheetId}` : "/";
    setNext(after);
    if (!sheet.afterwards) {
      void navigate(after);
    }
  };
  return {
    missing: tried ? missingOn(sheet, desk) : undefined,
    next,
    failure: send.error,
    isPending: send.isPending,
    send: async () => {
      const [first] = missingOn(sheet, desk);
      setTried(true);
      if (first) {
        jump(first);
      } else if (await desk.settleAll()) {
        send.mutate(undefined, { onSuccess: onSent });
      }
    },
    goOn: () => {
      if (next) {
        void navigate(next);
      }
    },
    takeBack: sheet.roundClosed ? undefined : () => takeBack.mutate(),
  };
}
