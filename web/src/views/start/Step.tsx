import type { ReactNode } from "react";
import styled from "styled-components";
import { t } from "../../app/theme";

const Box = styled.li`
  display: grid;
  grid-template-columns: 40px minmax(0, 1fr);
  padding: 18px 0 20px;
  border-bottom: 1px solid ${t.hair};
  > span {
    font: 500 ${t.s24} ${t.serif};
    color: ${t.soft};
  }
  &[data-done] > span {
    color: ${t.accent};
  }
  &[data-later] {
    color: ${t.soft};
  }
  h2 {
    padding-top: 3px;
  }
`;

interface Props {
  number: number;
  title: string;
  state: "now" | "done" | "later";
  /** What is there, once it is done. */
  said?: string;
  children?: ReactNode;
}

/** One of the first steps: a line where it is done or its turn has not come, its form where it has. */
export function Step({ number, title, state, said, children }: Props) {
  return (
    <Box
      data-done={state === "done" || undefined}
      data-later={state === "later" || undefined}
      aria-current={state === "now" ? "step" : undefined}
    >
      <span aria-hidden>{state === "done" ? "✓" : number}</span>
      <div>
        <h2>{title}</h2>
        {state === "done" && <p>{said}</p>}
        {state === "now" && children}
      </div>
    </Box>
  );
}
