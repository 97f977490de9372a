import type { Schemas } from "../../../api/client";
import { WayRule } from "./WayRule";

/** The pH now, what the grass likes, and where the plan leads. */
export function PhRule({ plan }: { plan: Schemas["PhPlanOut"] }) {
  return (
    <WayRule
      label={`pH ${Number(plan.ph.toFixed(2))} now, the grass likes ${plan.low} to ${plan.high}, target ${plan.target}`}
      ticks={[4, 5, 6, 7, 8, 9]}
      band={{ low: plan.low, high: plan.high, text: "the grass likes" }}
      now={plan.ph}
      aim={plan.verdict === "leave" ? null : plan.target}
    />
  );
}
