import styled from "styled-components";
import { t } from "../app/theme";

/** One line of a list that is typed: fields in `$columns`, and the button that leaves the line out. */
export const Line = styled.div<{ $columns: string }>`
  display: grid;
  grid-template-columns: ${({ $columns }) => $columns} max-content;
  gap: 8px 12px;
  align-items: start;
  > button {
    margin-top: 24px;
  }
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr);
    > button {
      margin-top: 0;
      justify-self: start;
    }
  }
`;
