import styled from "styled-components";
import { t } from "../app/theme";

/** A ruled list of things: hairlines between rows, figures lined up on the right. `wide` gives way on a phone to `narrow`. */
export const Ledger = styled.table`
  width: 100%;
  border-collapse: collapse;
  caption {
    text-align: left;
    font-size: ${t.s13};
    color: ${t.soft};
    padding-bottom: 8px;
  }
  th {
    text-align: left;
    font-size: ${t.s13};
    font-weight: 600;
    color: ${t.soft};
    padding: 0 12px 6px 0;
    border-bottom: 1px solid ${t.rule};
    vertical-align: bottom;
  }
  td {
    padding: 10px 12px 10px 0;
    border-bottom: 1px solid ${t.hair};
    vertical-align: baseline;
  }
  tbody th[scope="row"] {
    padding: 10px 12px 10px 0;
    border-bottom-color: ${t.hair};
    vertical-align: baseline;
  }
  .figure {
    text-align: right;
    white-space: nowrap;
  }
  .soft {
    color: ${t.soft};
    font-size: ${t.s13};
  }
  td:last-child,
  th:last-child {
    padding-right: 0;
  }
  tr:hover td {
    background: ${t.sheet};
  }
  .day {
    white-space: nowrap;
  }
  .narrow {
    display: none;
  }
  ${t.phone} {
    .wide {
      display: none;
    }
    .narrow {
      display: block;
    }
    .loose {
      white-space: normal;
    }
  }
`;
