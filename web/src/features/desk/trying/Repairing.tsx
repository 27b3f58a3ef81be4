import { useQuery } from "@tanstack/react-query";
import { RepairDialog } from "../../evidence";
import { repairable, repairPictureAt, useRepair } from "./api";

type RepairingProps = { sheetId: string; answerId: string; number: number; onClose: () => void };

/** Changing an answer's code at the desk, and trying it so. */
export function Repairing({ sheetId, answerId, number, onClose }: RepairingProps) {
  const files = useQuery(repairable(sheetId, answerId));
  const repair = useRepair(sheetId, answerId);
  return (
    <RepairDialog
      title={`Repair the code of answer ${number}`}
      files={files.data}
      failure={files.error}
      onTry={(changed) => repair.mutateAsync(changed)}
      pictureAt={(repairId, place) => repairPictureAt(sheetId, answerId, repairId)(place)}
      onClose={onClose}
    />
  );
}
