import { type ReactNode } from "react";
import styled from "styled-components";
import { useSkipJob, type Outing } from "../../api/outings";
import { useJob } from "../../api/hooks";
import { Findings } from "../../parts/Findings";
import { Fault } from "../../parts/Notice";
import { Section } from "../../parts/Section";
import { Looked } from "../reckon/Looked";
import { saidIn, type Said } from "../reckon/state";
import { Skip } from "./Skip";

const Headline = styled.p`
  padding-bottom: 8px;
`;
type Asked = NonNullable<Outing["jobs"][number]["asked"]>;

/** The next job as it is reckoned now: what the hour says of it, and what is to be looked at before it begins. */
export function NextJob({
  asked,
  said,
  change,
  children,
}: {
  asked: Asked;
  said: Said;
  change: (said: Said) => void;
  children: ReactNode;
}) {
  const found = useJob({ ...asked, said: saidIn(said) });
  const findings = (found.data?.parts ?? [])
    .flatMap((p) => p.doses.flatMap((d) => d?.findings ?? []))
    .filter((f) => f.act === "refuse" || f.act === "warn");
  const once = findings.filter((f, i) => findings.findIndex((g) => g.sentence === f.sentence) === i);
  return (
    <Section title="Now">
      <Fault error={found.error} />
      <Headline>{found.data?.headline ?? "…"}</Headline>
      {once.length > 0 && <Findings of={once} />}
      {found.data && (
        <Looked answer={found.data} said={said} change={(part) => change({ ...said, ...part })} />
      )}
      {children}
    </Section>
  );
}

/** Skip what is left of the next job, all of it. */
export function SkipJob({ outing, job }: { outing: Outing; job: Outing["jobs"][number] }) {
  const skip = useSkipJob(outing.id);
  return (
    <Skip
      what="all of it"
      error={skip.error}
      skip={(why, done) => skip.mutate({ position: job.position, why, skip: true }, { onSuccess: done })}
    />
  );
}
