import { useParams } from "react-router";
import { api, read, type Schemas } from "../../api/client";
import { useApplication, useChange } from "../../api/hooks";
import { useAccount, useMay } from "../../app/session";
import { Button, ButtonLink } from "../../parts/Button";
import { Facts } from "../../parts/Facts";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { RateRule } from "../../parts/RateRule";
import { Section } from "../../parts/Section";
import { Verdict } from "../../parts/Verdict";
import { Waiting } from "../../parts/Waiting";
import { useOpenJob } from "../reckon/openJob";
import { After } from "./After";
import { OnPaper } from "./OnPaper";
import { Formers, Right } from "./Right";

/** The application once more: Reckon opens with it. */
function DoAgain({ application }: { application: number }) {
  const openJob = useOpenJob();
  const again = useChange((path, application_id: number) =>
    read(
      api.GET("/api/accounts/{account}/reckon/again/{application_id}", {
        params: { path: { ...path, application_id } },
      }),
    ),
  );
  return (
    <>
      <Button
        look="main"
        isDisabled={again.isPending}
        onPress={() => again.mutate(application, { onSuccess: openJob })}
      >
        Do it again
      </Button>
      <Fault error={again.error} />
    </>
  );
}

/** One product of an application: its rate against the label, and what its card and its lot were. */
function EntryView({ entry: e, alone }: { entry: Schemas["EntryOut"]; alone: boolean }) {
  return (
    <Section title={alone ? "Against the label" : e.product}>
      {e.rule && <RateRule rule={e.rule} label={`Rate really put down of ${e.product}`} text={e.actual} />}
      {e.judgement ? <Verdict judgement={e.judgement} /> : <p>It went in to taste.</p>}
      {e.against.map((rule) => (
        <Notice key={rule} tone="stop" word="Against the label">
          {rule}
        </Notice>
      ))}
      {e.reason && <p>{`Why it was done all the same: ${e.reason}`}</p>}
      <div style={{ height: 12 }} />
      <Facts
        of={[
          ["Product", `${e.product}, ${e.kind}`],
          ["Holds", e.contents],
          ["Group", e.group_code],
          ["Registration", e.registration],
          ["Target", [e.target, e.use].filter((x, i, all) => x && all.indexOf(x) === i).join("; ")],
          ["Lot", e.lot],
          ["Next by the label", e.again],
          ["Planned", e.planned],
          ["Actual", e.actual],
          ["Label", e.label],
          ["Used", e.used],
          ["Cost", e.cost],
        ]}
      />
    </Section>
  );
}

/** One application of the book, product by product. */
export function EntryPage() {
  const account = useAccount();
  const may = useMay("applicator");
  const { id } = useParams();
  const found = useApplication(Number(id));
  return (
    <Waiting of={found}>
      {(a) => (
        <Page
          sentence={`${a.day}: ${a.name} on ${a.area}, ${a.rates}.`}
          act={
            <>
              {!a.struck && a.entries.some((e) => e.product_id !== null) && <DoAgain application={a.id} />}
              <Button onPress={() => window.print()}>Print</Button>
              <ButtonLink to={`/a/${account.slug}/book`}>All of the book</ButtonLink>
            </>
          }
        >
          {a.struck && (
            <Notice tone="stop" word="Struck">
              {`${a.struck.replace("Struck by", "By")} It counts for nothing.`}
            </Notice>
          )}
          {a.entries.map((e) => (
            <EntryView key={e.id} entry={e} alone={a.entries.length === 1} />
          ))}
          {!a.struck && <After application={a.id} area_id={a.area_id} />}
          <Section title="What was done">
            <Facts
              of={[
                ["Done at", `${a.day}, ${a.clock}`],
                ["Area", `${a.area}, ${a.treated} treated`],
                ["Spray", a.spray],
                [
                  "Machine",
                  `${a.machine}, ${a.loads} ${a.loads === 1 ? "load" : "loads"}, ${a.passes} ${a.passes === 1 ? "pass" : "passes"}`,
                ],
                ["Wind", a.wind],
                ["Air", a.air],
                ["Looked at", a.looked],
                ["Note", a.note],
                ["By", [a.by, a.licence && `licence ${a.licence}`].filter(Boolean).join(", ")],
              ]}
            />
          </Section>
          {!a.struck && <OnPaper application={a.id} />}
          <Formers of={a.formers} />
          {may && !a.struck && <Right key={a.formers.length} of={a} />}
        </Page>
      )}
    </Waiting>
  );
}
