import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { t } from "../../app/theme";
import { Hint } from "../../parts/Field";
import { Findings } from "../../parts/Findings";
import { Ledger } from "../../parts/Ledger";
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

/** Every product of a mix: in all, in each gallon of the spray, and what it costs. */
function InAll({ job }: { job: Schemas["JobOut"] }) {
  return (
    <Ledger>
      <thead>
        <tr>
          <th>In the mix</th>
          <th className="figure">In all</th>
          {job.spray && <th className="figure">In the spray</th>}
          <th className="figure wide">That is</th>
          <th className="figure wide">Cost</th>
        </tr>
      </thead>
      <tbody>
        {job.mix.map((c) => (
          <tr key={c.product_id} data-component={c.product}>
            <td>
              {c.product} <span className="soft">{c.role === "main" ? c.kind : c.role}</span>
            </td>
            <td className="figure">{c.amount?.text ?? "to taste"}</td>
            {job.spray && <td className="figure">{c.per_volume}</td>}
            <td className="figure wide soft">{c.also.join(", ")}</td>
            <td className="figure wide">{c.cost?.total ?? ""}</td>
          </tr>
        ))}
      </tbody>
    </Ledger>
  );
}

/** The answer: the amount, the spray it goes in, what it costs, and whether there is enough. */
export function Answer({ job }: { job: Schemas["JobOut"] }) {
  const only = job.mix.length === 1 ? job.mix[0] : undefined;
  const settings = job.parts.filter((p) => p.setting);
  return (
    <>
      <Row aria-label="Answer">
        {only?.amount && (
          <Figure $big data-answer="amount">
            <h2>Product in all</h2>
            <p>
              {only.amount.number} <small>{only.amount.symbol}</small>
            </p>
            <div>{only.also.length ? `that is ${only.also.join(", ")}` : ""}</div>
          </Figure>
        )}
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
            <div>
              {only
                ? only.cost_why_not
                : job.mix
                    .filter((c) => c.cost_why_not)
                    .map((c) => `${c.product}: ${c.cost_why_not}`)
                    .join(" ")}
            </div>
          )}
        </Figure>
      </Row>
      {!only && (
        <div style={{ marginTop: 14 }}>
          <InAll job={job} />
        </div>
      )}
      {job.mix.map(
        (c) =>
          c.purchase && (
            <Hint key={c.product_id} style={{ marginTop: 6 }} data-answer="purchase">
              {`${only ? "" : `${c.product}: `}${c.purchase.sentence}`}
            </Hint>
          ),
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
