import { usePlan } from "../features/brief/plan";
import { Planner } from "../features/brief/Planner";
import { TERMS } from "./people";

/** The dials where the study stands, as the brief has them. */
export function PlannerOfStudy() {
  const { pending, plan, change } = usePlan("s1");
  return pending ? null : <Planner rule={TERMS} plan={plan} onChange={change} />;
}
