import { useTrialMaps } from "../../api/trials";
import { useAccount } from "../../app/session";
import { Section } from "../../parts/Section";
import { TrialMap } from "./TrialMap";

/** On a mix sheet: where the plots lie that a round is for. */
export function TrialMaps({ round_id }: { round_id: number }) {
  const us = useAccount().units === "us";
  const maps = useTrialMaps(round_id).data ?? [];
  return maps.map((m) => (
    <Section key={m.trial_id} title={`Plots of the trial ${m.name}`}>
      <p style={{ marginBottom: 10 }}>{m.text}</p>
      <TrialMap plan={m.plan} plots={m.plots} us={us} label={m.text} names={m.names} own={m.own} />
    </Section>
  ));
}
