import styled from "styled-components";
import type { Schemas } from "../api/client";
import { t } from "../app/theme";

const Row = styled.ol`
  display: grid;
  gap: 6px;
  margin-top: 12px;
  li {
    display: grid;
    grid-template-columns: 46px 84px minmax(120px, 1fr) minmax(0, 2fr);
    gap: 4px 12px;
    align-items: center;
  }
  .figure {
    text-align: right;
  }
  svg {
    display: block;
    width: 100%;
    height: 22px;
  }
  .band {
    fill: ${t.wash};
  }
  .zero {
    stroke: ${t.ink};
  }
  .good {
    fill: ${t.accent};
  }
  .change {
    fill: ${t.stop};
  }
  .clean {
    fill: ${t.caution};
  }
  strong[data-state="change"] {
    color: ${t.stop};
  }
  strong[data-state="clean"] {
    color: ${t.caution};
  }
  ${t.phone} {
    li {
      grid-template-columns: 46px 84px minmax(80px, 1fr);
      > p {
        grid-column: 1 / -1;
      }
    }
  }
`;
const words = { good: "Sound", clean: "Clean it", change: "Change it" };

/** A boom's tips from the left, each against their mean; out of tolerance is a word, a shape and a colour. */
export function TipsChart({ tips }: { tips: Schemas["TipOut"][] }) {
  const reach = Math.max(0.15, ...tips.map((x) => Math.abs(x.from_mean) * 1.1));
  const x = (off: number) => 100 + (off / reach) * 95;
  return (
    <Row aria-label="Tips from the left">
      {tips.map((tip) => (
        <li key={tip.number}>
          <span>{`Tip ${tip.number}`}</span>
          <span className="figure">{tip.caught}</span>
          <svg viewBox="0 0 200 22" preserveAspectRatio="none" aria-hidden>
            <rect className="band" x={x(-0.05)} width={x(0.05) - x(-0.05)} y={0} height={22} />
            <line className="zero" x1={100} x2={100} y1={0} y2={22} />
            <rect
              className={tip.state}
              x={Math.min(100, x(tip.from_mean))}
              width={Math.abs(x(tip.from_mean) - 100) || 1}
              y={6}
              height={10}
            />
          </svg>
          <p>
            <strong data-state={tip.state}>{words[tip.state]}.</strong> {tip.sentence}
          </p>
        </li>
      ))}
    </Row>
  );
}
