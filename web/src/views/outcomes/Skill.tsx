import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { t } from "../../app/theme";
import { Facts } from "../../parts/Facts";
import { Ledger } from "../../parts/Ledger";

const Box = styled.article`
  padding-bottom: 14px;
  border-bottom: 1px solid ${t.hair};
  h3 {
    font: 600 ${t.s15} ${t.text};
    margin-bottom: 6px;
  }
  details {
    margin-top: 10px;
  }
  summary {
    cursor: pointer;
    color: ${t.accent};
    ${t.phone} {
      padding-block: 12px;
    }
  }
`;
const Drawn = styled.svg`
  display: block;
  width: 100%;
  max-width: 420px;
  margin: 10px 0 6px;
  line {
    stroke: ${t.ink};
    stroke-width: 1.5;
  }
  .rule {
    stroke: ${t.rule};
    stroke-width: 1;
  }
  circle {
    fill: ${t.sheet};
    stroke: ${t.ink};
    stroke-width: 1.5;
  }
  text {
    font: 500 11px ${t.text};
    fill: ${t.soft};
  }
`;
const WIDTH = 300;

/** What was foretold of what was seen, on a rule from none to all, with the range that chance leaves it. */
function FoundRule({ of }: { of: Schemas["SkillOut"] }) {
  const x = (v: number) => 8 + v * (WIDTH - 16);
  if (of.found === null) return null;
  return (
    <Drawn
      viewBox={`0 0 ${WIDTH} 40`}
      role="img"
      aria-label={`Forecast of what was seen: ${Math.round(of.found * 100)} %, likely ${Math.round(of.found_low * 100)} to ${Math.round(of.found_high * 100)} %`}
    >
      <line className="rule" x1={x(0)} x2={x(1)} y1={14} y2={14} />
      {[0, 0.25, 0.5, 0.75, 1].map((v) => (
        <line key={v} className="rule" x1={x(v)} x2={x(v)} y1={10} y2={18} />
      ))}
      <line x1={x(of.found_low)} x2={x(of.found_high)} y1={14} y2={14} style={{ strokeWidth: 3 }} />
      <circle cx={x(of.found)} cy={14} r={5} />
      <text x={x(0)} y={34}>
        none forecast
      </text>
      <text x={x(1)} y={34} textAnchor="end">
        all forecast
      </text>
    </Drawn>
  );
}

/** How one model did on one site, the numbers behind it, and what another threshold would have given. */
export function Skill({ of }: { of: Schemas["SkillOut"] }) {
  return (
    <Box>
      <h3>{`${of.disease}: ${of.model}, ${of.site}`}</h3>
      <p>{of.text}</p>
      <FoundRule of={of} />
      <Facts of={[["On", of.areas], ...of.facts.map((x): [string, string] => [x.name, x.text])]} />
      {of.left_out.length > 0 && (
        <p style={{ marginTop: 6 }}>
          <small>{`Left out: ${of.left_out.join(" ")}`}</small>
        </p>
      )}
      {of.tried.length > 1 && (
        <details>
          <summary>What another threshold would have given</summary>
          <Ledger style={{ marginTop: 8 }}>
            <thead>
              <tr>
                <th>Threshold</th>
                <th className="figure">Right</th>
                <th className="figure">For nothing</th>
                <th className="figure">Missed</th>
                <th className="figure wide">Neither</th>
                <th className="figure wide">Skill</th>
              </tr>
            </thead>
            <tbody>
              {of.tried.map((x) => (
                <tr key={x.threshold}>
                  <td>
                    {x.threshold}
                    {x.own && <div className="soft">in use</div>}
                    {x.best && !x.own && <div className="soft">did best here</div>}
                  </td>
                  <td className="figure">{x.hits}</td>
                  <td className="figure">{x.false_alarms}</td>
                  <td className="figure">{x.misses}</td>
                  <td className="figure wide">{x.quiet}</td>
                  <td className="figure wide">{x.skill || "–"}</td>
                </tr>
              ))}
            </tbody>
          </Ledger>
        </details>
      )}
    </Box>
  );
}
