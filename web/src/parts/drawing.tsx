import styled from "styled-components";
import { t } from "../app/theme";

/** The sheet that vessels and tanks are drawn on: one set of inks for walls, liquids, grains, graduations and words. */
export const Drawing = styled.svg<{ $width: number }>`
  display: block;
  width: 100%;
  max-width: ${({ $width }) => $width}px;
  height: auto;
  .wall {
    fill: none;
    stroke: ${t.ink};
    stroke-width: 1.6;
    stroke-linejoin: round;
  }
  .water {
    fill: ${t.mix};
  }
  .liquid {
    fill: ${t.liquid};
  }
  .grain {
    fill: ${t.grain};
  }
  .tick {
    stroke: ${t.rule};
    stroke-width: 0.8;
  }
  .long {
    stroke: ${t.ink};
    stroke-width: 1;
  }
  .mark {
    stroke: ${t.accent};
    stroke-width: 2;
  }
  .eye {
    fill: ${t.accent};
  }
  .level {
    stroke: ${t.accent};
    stroke-width: 1.2;
    stroke-dasharray: 3 3;
  }
  .turn {
    fill: ${t.sheet};
    stroke: ${t.accent};
  }
  text {
    font: 500 11.5px ${t.text};
    fill: ${t.soft};
  }
  .number {
    font-weight: 700;
    fill: ${t.accent};
  }
  .now {
    font: 600 14px ${t.text};
    fill: ${t.ink};
  }
`;
