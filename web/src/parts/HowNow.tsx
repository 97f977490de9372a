import { Link } from "react-router";
import styled from "styled-components";
import type { Schemas } from "../api/client";
import { useAnswerFollowUp, useStrikeFollowUp } from "../api/scouting";
import { useAccount, useMay } from "../app/session";
import { t } from "../app/theme";
import { say } from "../app/toast";
import { Button } from "./Button";
import { Fault } from "./Notice";
import { SpotsSince } from "./SpotsSince";

const Row = styled.div`
  padding: 12px 0;
  border-bottom: 1px solid ${t.hair};
  &:first-child {
    padding-top: 0;
  }
`;
const Words = styled.p`
  color: ${t.soft};
  font-size: ${t.s13};
`;
const Answers = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin-top: 8px;
  @media print {
    display: none;
  }
`;

/** One question of each application whose day has come: how is it now? */
export function HowNow({ due }: { due: Schemas["FollowDueOut"][] }) {
  return (
    <div>
      {due.map((d) => (
        <One key={d.application_id} due={d} />
      ))}
    </div>
  );
}

function One({ due }: { due: Schemas["FollowDueOut"] }) {
  const { slug } = useAccount();
  const may = useMay("applicator");
  const answer = useAnswerFollowUp();
  const strike = useStrikeFollowUp();
  const said = (how: string) =>
    answer.mutate(
      { application_id: due.application_id, how, note: "" },
      {
        onSuccess: (made) =>
          say(`${due.area}: ${made.text}.`, () => strike.mutate({ id: made.id, why: "Taken back at once." })),
      },
    );
  return (
    <Row role="group" aria-label={`How is it now on ${due.area}?`}>
      <Link to={`/a/${slug}/ground/${due.area_id}`}>{due.area}</Link>
      {`, ${due.since}. How is it now?`}
      {due.signs.map((sign) => (
        <Words key={sign}>{sign}</Words>
      ))}
      <SpotsSince spots={due.spots} area_id={due.area_id} />
      {may && (
        <Answers>
          {due.answers.map((a) => (
            <Button key={a.key} isDisabled={answer.isPending} onPress={() => said(a.key)}>
              {a.text}
            </Button>
          ))}
          <Link to={`/a/${slug}/ground/${due.area_id}/seen`}>
            {due.spots.length > 0 ? "Photograph the same spots" : "Photograph it"}
          </Link>
        </Answers>
      )}
      <Fault error={answer.error} />
    </Row>
  );
}
