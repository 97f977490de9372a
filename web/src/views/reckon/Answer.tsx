import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { t } from "../../app/theme";
import { Hint } from "../../parts/Field";
import { Findings } from "../../parts/Findings";
import { Notice } from "../../parts/Notice";

const Row = styled.section`
  display: flex;
  flex-wrap: wrap;
  gap: 12px 44px;
  align-items: end;
  margin-top: 20px;
  padding: 16px 0 4px;
  border-top: 1px solid ${t.rule};
`;
const Figure = styled.div<{ $big?: boolean }>`
  h2 {
    font: 600 ${t.s13} ${t.text};
    color: ${t.soft};
  }
  p {
    font-size: ${({ $big }) => ($big ? t.s34 : t.s24)};
    font-weight: ${({ $big }) => ($big ? 600 : 500)};
    line-height: 1.15;
    white-space: nowrap;
  }
  small {
    font-size: ${t.s18};
    font-weight: 400;
  }
  div {
    color: ${t.soft};
    font-size: ${t.s13};
    min-height: 1.45em;
  }
`;

/** The answer: the amount, the spray it goes in, what it costs, and whether there is enough. */
export function Answer({ job }: { job: Schemas["JobOut"] }) {
  const settings = job.parts.filter((p) => p.setting);
  return (
    <>
      <Row aria-label="Answer">
        <Figure $big data-answer="amount">
          <h2>Product in all</h2>
          <p>
            {job.amount.number} <small>{job.amount.symbol}</small>
          </p>
          <div>{job.also.length ? `that is ${job.also.join(", ")}` : ""}</div>
        </Figure>
        {job.spray && (
          <Figure>
            <h2>Spray in all</h2>
            <p>{job.spray}</p>
            <div>{`${job.spray_rate}${job.passes > 1 ? ` over ${job.passes} passes` : ""}`}</div>
          </Figure>
        )}
        {settings.length > 0 && (
          <Figure data-answer="setting">
            <h2>Set the spreader to</h2>
            <p>{settings[0]!.setting}</p>
            <div>
              {settings.length > 1
                ? settings.map((x) => `${x.name}: ${x.setting}`).join(", ")
                : "by its own tests"}
            </div>
          </Figure>
        )}
        <Figure>
          <h2>Cost</h2>
          {job.cost ? (
            <>
              <p>{job.cost.total}</p>
              <div>{`${job.cost.per_foot} per ${job.cost.foot}`}</div>
            </>
          ) : (
            <div>{job.cost_why_not}</div>
          )}
        </Figure>
      </Row>
      {job.purchase && (
        <Hint style={{ marginTop: 6 }} data-answer="purchase">
          {job.purchase.sentence}
        </Hint>
      )}
      {(job.machine_findings?.length ?? 0) > 0 && (
        <div style={{ marginTop: 12 }}>
          <Findings of={job.machine_findings!} />
        </div>
      )}
      {job.warnings.map((w) => (
        <Notice key={w} tone="caution">
          {w}
        </Notice>
      ))}
    </>
  );
}
