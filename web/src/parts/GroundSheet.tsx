import styled from "styled-components";
import { t } from "../app/theme";

/** The sheet that ground is drawn on: turf, what is cut out of it or kept off, and lines over it. */
export const GroundSheet = styled.svg`
  display: block;
  width: 100%;
  height: auto;
  .turf {
    fill: ${t.turf};
    stroke: ${t.ink};
    stroke-width: 1.6;
    stroke-linejoin: round;
  }
  .bare {
    fill: none;
    stroke: ${t.ink};
    stroke-width: 1.4;
    stroke-linejoin: round;
  }
  .halo {
    fill: none;
    stroke: ${t.sheet};
    stroke-width: 4;
    stroke-linejoin: round;
  }
  .cut {
    fill: ${t.sheet};
    stroke: ${t.ink};
    stroke-width: 1.2;
    stroke-dasharray: 4 3;
  }
  .buffer {
    fill: ${t.cautionWash};
    fill-opacity: 0.75;
    stroke: ${t.caution};
    stroke-dasharray: 3 3;
  }
  .keep {
    fill: ${t.stopWash};
    stroke: ${t.stop};
  }
  .pass {
    fill: none;
    stroke: ${t.ink};
    stroke-width: 1;
  }
  .second {
    stroke: ${t.accent};
    stroke-dasharray: 7 4;
  }
  .edge {
    stroke-width: 1.6;
  }
  .guide {
    stroke-width: 3;
  }
  .arrow {
    fill: ${t.ink};
  }
  .refill {
    fill: ${t.accent};
    stroke: ${t.sheet};
    stroke-width: 1.5;
  }
  .mark {
    stroke: ${t.accent};
    stroke-width: 0.8;
  }
  .bar path {
    stroke: ${t.ink};
    stroke-width: 1.4;
  }
  text {
    font: 500 12px ${t.text};
    fill: ${t.ink};
    paint-order: stroke;
    stroke: ${t.sheet};
    stroke-width: 3px;
    stroke-linejoin: round;
  }
  .refilltext {
    stroke: none;
    fill: ${t.onAccent};
    font-weight: 700;
  }
  ${t.phone} {
    text {
      font-size: 18px;
    }
  }
`;
