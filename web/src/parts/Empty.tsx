import type { ReactNode } from "react";
import styled from "styled-components";
import { t } from "../app/theme";

const Box = styled.div`
  border: 1px dashed ${t.rule};
  padding: 32px 24px;
  max-width: 60ch;
  display: grid;
  gap: 14px;
  justify-items: start;
`;

/** A place with nothing in it yet: what it is for, and the one thing to do. */
export function Empty({ children, act }: { children: ReactNode; act?: ReactNode }) {
  return (
    <Box>
      <p>{children}</p>
      {act}
    </Box>
  );
}
