import styled from "styled-components";
import { t } from "../app/theme";
import { riskInk } from "./ramp";

const Box = styled.svg`
  display: block;
  width: 132px;
  height: 20px;
  .axis {
    stroke: ${t.rule};
  }
  .limit {
    stroke: ${t.stop};
    stroke-width: 2;
  }
  .none {
    stroke: ${t.rule};
    stroke-dasharray: 2 3;
  }
  .peak {
    fill: none;
    stroke: ${t.ink};
    stroke-width: 1.2;
  }
`;

interface Props {
  /** Today's value and the worst of the week as shares of the threshold; null where there is none. */
  share: number | null;
  peak: number | null;
  text: string;
}

const SCALE = 2;
const at = (share: number) => 2 + (Math.min(share, SCALE) / SCALE) * 128;

/** A risk against its threshold: today as a bar, the worst of the week to come as an outline, the threshold as a stop. */
export function RiskBar({ share, peak, text }: Props) {
  return (
    <Box viewBox="0 0 132 20" role="img" aria-label={text}>
      <path className="axis" d="M2 17H130" />
      {share === null && <path className="none" d="M2 11H130" />}
      {share !== null && (
        <rect
          x={2}
          y={6}
          height={11}
          width={Math.max(1, at(share) - 2)}
          style={{ fill: riskInk(share) }}
          stroke={t.rule}
          strokeWidth={0.4}
        />
      )}
      {peak !== null && peak > (share ?? 0) && (
        <rect className="peak" x={at(share ?? 0)} y={6} height={11} width={at(peak) - at(share ?? 0)} />
      )}
      <path className="limit" d={`M${at(1)} 1V19`} />
    </Box>
  );
}
