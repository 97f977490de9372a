import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { t } from "../../app/theme";
import { Notice } from "../../parts/Notice";

const Scale = styled.ol`
  display: grid;
  grid-template-columns: repeat(8, minmax(0, 1fr));
  margin: 14px 0 10px;
  li {
    display: grid;
    justify-items: center;
    align-content: end;
    gap: 6px;
    padding: 8px 2px;
    font-size: ${t.s13};
    text-align: center;
    line-height: 1.2;
    border-bottom: 3px solid ${t.hair};
  }
  li[data-right] {
    background: ${t.wash};
    border-color: ${t.accent};
    font-weight: 600;
  }
  i {
    display: block;
    border-radius: 50%;
    background: ${t.liquid};
    border: 1px solid ${t.ink};
  }
  ${t.phone} {
    grid-template-columns: repeat(4, minmax(0, 1fr));
  }
`;

interface Props {
  answer: Schemas["NozzleOut"];
  /** The class that is fitted, if the card says. */
  fitted: number | null;
}

/** The classes of droplets from the finest, those for the purpose marked, and what is fitted held against them. */
export function DropletScale({ answer, fitted }: Props) {
  const { finest, coarsest, scale } = answer;
  const off = fitted === null ? "" : fitted < finest ? "finer" : fitted > coarsest ? "coarser" : "right";
  return (
    <div>
      <Scale aria-label="Droplet classes">
        {scale.map((name, i) => (
          <li key={name} data-right={i >= finest && i <= coarsest ? "" : undefined}>
            <i style={{ width: 5 + i * 3.5, height: 5 + i * 3.5 }} aria-hidden />
            {name}
            {fitted === i && <span>(fitted)</span>}
          </li>
        ))}
      </Scale>
      <p data-answer="droplets">
        <strong>{`${answer.droplets[0]!.toUpperCase()}${answer.droplets.slice(1)}. `}</strong>
        {answer.why}
      </p>
      {off && off !== "right" && (
        <Notice tone="caution">{`What is fitted is ${off} than that: change the tip or the pressure, unless the label says so.`}</Notice>
      )}
    </div>
  );
}
