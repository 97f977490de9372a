import type { ReactNode } from "react";
import { useParams } from "react-router";
import { Link } from "react-router";
import styled from "styled-components";
import { api, read, type Schemas } from "../../api/client";
import { useChange, useRound } from "../../api/hooks";
import { useAccount, useMay } from "../../app/session";
import { say } from "../../app/toast";
import { Button, ButtonLink } from "../../parts/Button";
import { Facts } from "../../parts/Facts";
import { Findings } from "../../parts/Findings";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { OnScreen, Section } from "../../parts/Section";
import { Waiting } from "../../parts/Waiting";
import { Midway } from "../kit/Midway";
import { TrialMaps } from "../trials/TrialMaps";
import { LabelSays } from "../reckon/LabelSays";
import { FinishForm } from "./FinishForm";
import { LoadSheet } from "./LoadSheet";
import { Outings } from "./Outings";
import { SpotForm } from "./SpotForm";
import { useTick } from "./ticks";
import { Wear } from "./Wear";
import { datedAt } from "../../parts/days";

const OnPaper = styled.span`
  display: none;
  @media print {
    display: block;
  }
`;
const ByHand = styled.dl`
  display: none;
  @media print {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    gap: 22px 24px;
    margin-top: 26px;
    break-inside: avoid;
    dt {
      border-bottom: 1px solid #000;
      padding-bottom: 18px;
    }
  }
`;
const ToBench = styled.a`
  display: inline-block;
  padding: 12px 0;
  @media print {
    display: none;
  }
`;
const byHand = [
  "Product really used",
  "Ground treated",
  "Spray put down",
  "Wind",
  "Air, leaf",
  "Signed, time",
];

const Cautions = styled.ul`
  display: grid;
  gap: 8px;
  li {
    padding-left: 18px;
    text-indent: -18px;
  }
  li::before {
    content: "!";
    font-weight: 700;
    display: inline-block;
    width: 18px;
    text-indent: 0;
  }
`;

/** What the rules said of the plan when the round began. */
function RuleWarnings({ sheet }: { sheet: Schemas["SheetOut"] }) {
  const said = sheet.findings
    .filter((f) => f.act !== "ask")
    .map((f) => ({ ...f, act: f.act as Schemas["FindingOut"]["act"], readings: [] }));
  if (!said.length) return null;
  return (
    <Section title="Take care on this ground">
      <Findings of={said} />
    </Section>
  );
}

function RoundView({ round }: { round: Schemas["RoundOut"] }) {
  const account = useAccount();
  const may = useMay("applicator");
  const { sheet } = round;
  const tick = useTick(round.id);
  const open = round.status === "under_way" && may;
  const take = useChange((path, round_id: number) =>
    read(
      api.POST("/api/accounts/{account}/rounds/{round_id}/take-up", {
        params: { path: { ...path, round_id } },
      }),
    ),
  );
  const giveUp = useChange((path, round_id: number) =>
    read(
      api.POST("/api/accounts/{account}/rounds/{round_id}/give-up", {
        params: { path: { ...path, round_id } },
      }),
    ),
  );
  const allOut = round.loads_done === sheet.loads.length;
  return (
    <Page
      steady={open}
      title={round.next}
      sentence={
        <>
          <OnPaper>{`${account.name}. Mix sheet. ${sheet.headline}`}</OnPaper>
          <OnScreen as="span">{round.next}</OnScreen>
        </>
      }
      act={
        <>
          {round.status === "under_way" && <Button onPress={() => window.print()}>Print the sheet</Button>}
          {round.outing_id !== null && (
            <ButtonLink
              look={round.status === "done" ? "main" : "plain"}
              to={`/a/${account.slug}/round/outing/${round.outing_id}`}
            >
              Back to the outing
            </ButtonLink>
          )}
          {round.application_ids.length > 0 && (
            <ButtonLink
              look={round.outing_id === null ? "main" : "plain"}
              to={`/a/${account.slug}/book/${round.application_ids.length === 1 ? round.application_ids[0] : ""}`}
            >
              Open it in the book
            </ButtonLink>
          )}
          {round.status === "given_up" && !round.spots?.emptied && may && (
            <Button look="main" onPress={() => take.mutate(round.id)}>
              Take it up again
            </Button>
          )}
        </>
      }
      margin={
        <>
          <Section title="The job">
            <Facts
              of={[
                ...sheet.mix.map((c, i): [string, ReactNode] => [
                  sheet.mix.length > 1 ? `Product ${i + 1}` : "Product",
                  <span key={c.product}>
                    {[c.product, c.amount || "to taste"].join(", ")}
                    {(c.target || (!i && round.parts[0]?.doses[0]?.use)) && (
                      <>
                        <br />
                        <small>{`against ${c.target || round.parts[0]?.doses[0]?.use}`}</small>
                      </>
                    )}
                  </span>,
                ]),
                ...round.parts.map((p): [string, ReactNode] => [
                  p.name,
                  <span key={p.name}>
                    {p.treated.text}
                    {p.setting && <strong>{`, setting ${p.setting}`}</strong>}
                    {p.doses.map((d) => (
                      <span key={d.product}>
                        <br />
                        {p.doses.length > 1 && `${d.product} `}at {d.rate}
                        <br />
                        <small>the label says {d.label}</small>
                      </span>
                    ))}
                  </span>,
                ]),
                ["When", round.at_text],
                ["Looked at", round.looked],
                ["Machine", sheet.machine],
                ...sheet.setup.map((f): [string, ReactNode] => [f.name, f.text]),
                ["Passes", sheet.passes > 1 ? `${sheet.passes}` : ""],
                ["Spray", sheet.spray],
                ["Cost", sheet.cost],
                ["Begun", `${round.started_by}, ${datedAt(round.started_at)}`],
              ]}
            />
          </Section>
          {round.status === "under_way" && (
            <ToBench
              href={`/api/accounts/${account.slug}/proof/rounds/${round.id}/measuring.pdf`}
              target="_blank"
              rel="noreferrer"
            >
              Measuring list for the bench (PDF)
            </ToBench>
          )}
          <LabelSays job={sheet} />
          <RuleWarnings sheet={sheet} />
          <Section title="Cautions">
            <Notice tone="caution" word="The label first">
              {sheet.label_first}
            </Notice>
            <Cautions>
              {sheet.cautions.map((c) => (
                <li key={c.key}>{c.text}</li>
              ))}
            </Cautions>
          </Section>
        </>
      }
    >
      {sheet.problem && <Notice tone="caution">{sheet.problem}</Notice>}
      <Fault error={tick.error ?? giveUp.error ?? take.error} />
      <Wear round={round} open={open} onTick={tick.mutate} />
      <TrialMaps round_id={round.id} />
      {sheet.loads.map((load) => (
        <LoadSheet
          key={load.number}
          load={load}
          round={round}
          open={open && round.worn}
          onTick={tick.mutate}
        />
      ))}
      {open && round.planned_spray === null && (
        <OnScreen>
          <Section title="Half way there">
            <Midway
              solid
              loaded={sheet.loads[0] && { value: sheet.loads[0].pours[0]?.amount ?? "", unit: "lb" }}
            />
          </Section>
        </OnScreen>
      )}
      <ByHand aria-hidden>
        {byHand.map((line) => (
          <dt key={line}>{line}</dt>
        ))}
      </ByHand>
      {round.spots && <Outings spots={round.spots} />}
      {open && round.spots && <SpotForm round={round} spots={round.spots} />}
      {open && !round.spots && (
        <FinishForm
          round={round}
          early={!allOut}
          onGiveUp={() =>
            giveUp.mutate(round.id, {
              onSuccess: () =>
                say("The round is given up; nothing went in the book.", () => take.mutate(round.id)),
            })
          }
        />
      )}
      {!may && <Link to={`/a/${account.slug}/round`}>All rounds</Link>}
    </Page>
  );
}

/** One round: the mix sheet, from the gloves to the book. */
export function RoundPage() {
  const { id } = useParams();
  const round = useRound(Number(id));
  return <Waiting of={round}>{(found) => <RoundView round={found} />}</Waiting>;
}
