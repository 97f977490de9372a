import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useAreas, useMachines } from "../../api/hooks";
import { usePlan } from "../../api/passes";
import { useDraft } from "../../app/draft";
import { useAccount } from "../../app/session";
import { useSettled } from "../../app/useSettled";
import { Button, ButtonLink } from "../../parts/Button";
import { Empty } from "../../parts/Empty";
import { Facts } from "../../parts/Facts";
import { Hint } from "../../parts/Field";
import { FaultsContext, faultsOf } from "../../parts/faults";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { PassMap } from "../../parts/PassMap";
import { OnScreen, Section } from "../../parts/Section";
import { CompareSection } from "./CompareSection";
import { ExportSection } from "./ExportSection";
import { LandingSection } from "./LandingSection";
import { NearSection } from "./NearSection";
import { PlanFields } from "./PlanFields";
import { blank, toPlan, type Typed } from "./state";

const placed = [
  "spacing",
  "direction",
  "edges",
  "pace",
  "length",
  "rate",
  "line",
  "late",
  "slow_over",
  "slow",
];

/** The walking plan, and what really lands where. */
export function Passes() {
  const account = useAccount();
  const us = account.units === "us";
  const areas = useAreas();
  const machines = useMachines();
  const { value: typed, change } = useDraft<Typed>(`${account.slug}/passes`, blank(us));
  const [placing, setPlacing] = useState(false);
  const here = stillHere(typed, areas.data?.areas, machines.data);
  const plan = toPlan(here);
  const asked = JSON.parse(useSettled(JSON.stringify(plan), 80)) as typeof plan;
  const found = usePlan(asked);
  const answer = plan && asked && !found.error ? found.data : undefined;
  const area = areas.data?.areas.find((a) => a.id === here.area);
  const faults = faultsOf(asked ? found.error : null);
  if (areas.data && areas.data.areas.length === 0)
    return (
      <Page sentence="No ground to walk yet.">
        <Empty
          act={
            <ButtonLink look="main" to={`/a/${account.slug}/ground/new`}>
              Add an area
            </ButtonLink>
          }
        >
          A plan of passes needs an area, best one that was measured, and a machine with its swath.
        </Empty>
      </Page>
    );
  return (
    <Page
      sentence={
        answer?.sentence ??
        (asked && found.error ? "That cannot be walked as it stands." : "Pick the ground and the machine.")
      }
      act={
        answer && (
          <Button look="main" onPress={() => window.print()}>
            Print the card
          </Button>
        )
      }
      margin={
        answer && (
          <>
            <Section title="The plan">
              <Facts of={answer.facts.map((f) => [f.name, f.text])} />
            </Section>
            <Section title="As one walks it">
              {answer.steps.map((s) => (
                <p key={s} style={{ marginBottom: 6 }}>
                  {s}
                </p>
              ))}
              {answer.notes.map((n) => (
                <Hint key={n} style={{ marginTop: 6 }}>
                  {n}
                </Hint>
              ))}
            </Section>
          </>
        )
      }
    >
      <OnScreen>
        <FaultsContext.Provider value={faults}>
          <PlanFields
            typed={here}
            change={change}
            areas={areas.data?.areas}
            machines={machines.data}
            hasPlan={answer?.has_plan ?? true}
          />
          {asked && found.error && <Fault error={found.error} besides={placed} />}
        </FaultsContext.Provider>
      </OnScreen>
      {answer && (
        <>
          <div style={{ marginTop: 18 }}>
            <PassMap plan={answer} us={us} sides={placing} />
          </div>
          <OnScreen>
            {area && area.hazards.length > 0 && (
              <NearSection key={area.id} area={area} placing={placing} onPlacing={setPlacing} />
            )}
            <LandingSection plan={answer} asked={asked!} typed={here} change={change} />
            <CompareSection plan={answer} asked={asked!} typed={here} change={change} />
            <ExportSection asked={asked!} has={answer.has_positions} />
          </OnScreen>
        </>
      )}
      {!answer && !plan && (
        <Notice tone="note" word="Next">
          Pick an area. With a calibrated machine its swath and pace are taken from the bench.
        </Notice>
      )}
    </Page>
  );
}

/** What was picked before, less what has been put away since. */
function stillHere(
  typed: Typed,
  areas: Schemas["AreaOut"][] | undefined,
  machines: Schemas["MachineOut"][] | undefined,
): Typed {
  return {
    ...typed,
    area: areas?.some((a) => a.id === typed.area) ? typed.area : null,
    machine: machines?.some((m) => m.id === typed.machine) ? typed.machine : null,
  };
}
