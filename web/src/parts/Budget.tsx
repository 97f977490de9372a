import styled from "styled-components";
import type { Schemas } from "../api/client";
import { t } from "../app/theme";

type Line = Schemas["BudgetLineOut"];

const Rows = styled.ul`
  display: grid;
  gap: 12px;
`;
const Row = styled.li`
  display: grid;
  grid-template-columns: minmax(92px, 1fr) minmax(0, 3fr) minmax(150px, max-content);
  gap: 4px 16px;
  align-items: center;
  small {
    font-size: ${t.s13};
    color: ${t.soft};
    grid-column: 2 / -1;
  }
  ${t.phone} {
    grid-template-columns: 1fr max-content;
    svg,
    small {
      grid-column: 1 / -1;
    }
  }
`;
const Bar = styled.svg`
  display: block;
  width: 100%;
  height: 26px;
  overflow: visible;
  .base {
    stroke: ${t.rule};
  }
  .usual {
    fill: ${t.wash};
    stroke: ${t.accent};
    stroke-width: 0.6;
  }
  .used {
    fill: ${t.ink};
  }
  .plan {
    fill: ${t.liquid};
    stroke: ${t.ink};
    stroke-width: 1;
  }
  .over {
    fill: ${t.stop};
  }
  .stop {
    stroke: ${t.stop};
    stroke-width: 3;
  }
  .usually {
    stroke: ${t.caution};
    stroke-width: 2;
    stroke-dasharray: 3 2;
  }
`;
const Total = styled.span<{ $over: boolean }>`
  text-align: right;
  white-space: nowrap;
  font-weight: ${({ $over }) => ($over ? 600 : 400)};
  color: ${({ $over }) => ($over ? t.stop : "inherit")};
`;

/** A season's budget: what went down, what this adds, and the most allowed as a stop, each to one scale. */
export function Budget({ lines }: { lines: Line[] }) {
  if (!lines.length) return null;
  return (
    <Rows>
      {lines.map((line) => (
        <BudgetRow key={line.key} line={line} />
      ))}
    </Rows>
  );
}

function BudgetRow({ line }: { line: Line }) {
  const x = (v: number) => (100 * v) / line.scale;
  const said = `${line.what}: ${line.used_text} before, ${line.plan_text} now, ${line.total_text} in all${
    line.cap_text ? ` of ${line.cap_text}` : ""
  }`;
  return (
    <Row data-budget={line.key} data-over={line.over || undefined}>
      <span>{line.what}</span>
      <Bar viewBox="0 0 100 26" preserveAspectRatio="none" role="img" aria-label={said}>
        {line.cap !== null && line.cap !== undefined && !line.binds && (
          <rect
            className="usual"
            x={x(line.low)}
            width={x(line.cap - line.low)}
            y={4}
            height={18}
            vectorEffect="non-scaling-stroke"
          />
        )}
        <rect className="used" x={0} width={x(line.used)} y={9} height={8} />
        <rect
          className={line.over ? "over" : "plan"}
          x={x(line.used)}
          width={x(line.plan)}
          y={9}
          height={8}
          vectorEffect="non-scaling-stroke"
        />
        <line className="base" x1={0} x2={100} y1={22} y2={22} vectorEffect="non-scaling-stroke" />
        {line.cap !== null && line.cap !== undefined && (
          <line
            className={line.binds ? "stop" : "usually"}
            x1={x(line.cap)}
            x2={x(line.cap)}
            y1={2}
            y2={24}
            vectorEffect="non-scaling-stroke"
          />
        )}
      </Bar>
      <Total $over={line.over}>
        {line.total_text}
        {line.cap_text && ` of ${line.cap_text}`}
      </Total>
      <small>
        {line.used_text} before, {line.plan_text} now{line.whose && `; ${line.whose}`}
      </small>
    </Row>
  );
}
