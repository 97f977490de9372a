import { useNavigate } from "react-router";
import type { Schemas } from "../../../api/client";
import { useAdoptSoil } from "../../../api/programme";
import { useAccount } from "../../../app/session";
import { say } from "../../../app/toast";
import { Button } from "../../../parts/Button";
import { Fault } from "../../../parts/Notice";
import { Bar } from "../../../parts/Section";

/** Puts the steps of a pH plan into the programme of their years. */
export function IntoProgramme({ area, plan }: { area: number; plan: Schemas["PhPlanIn"] }) {
  const account = useAccount();
  const navigate = useNavigate();
  const adopt = useAdoptSoil();
  const take = () =>
    adopt.mutate(
      { area_id: area, plan },
      {
        onSuccess: (programme) => {
          say("Its steps stand in the programme.");
          void navigate(`/a/${account.slug}/season/programme?year=${programme.year}`);
        },
      },
    );
  return (
    <>
      <Bar style={{ marginTop: 12 }}>
        <Button isDisabled={adopt.isPending} onPress={take}>
          Put its steps into the programme
        </Button>
      </Bar>
      <Fault error={adopt.error} />
    </>
  );
}
