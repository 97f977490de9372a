import styled from "styled-components";
import type { Schemas } from "../api/client";
import { t } from "../app/theme";

const List = styled.ol`
  display: grid;
  gap: 10px;
`;
const Title = styled.div`
  font-size: ${t.s13};
  color: ${t.soft};
`;
const Sum = styled.div`
  line-height: 1.55;
  padding-left: 12px;
  text-indent: -12px;
  span {
    text-indent: 0;
  }
`;
const Unit = styled.span<{ $struck?: boolean }>`
  font-size: ${t.s13};
  color: ${t.soft};
  ${({ $struck }) => $struck && `text-decoration: line-through; text-decoration-color: ${t.rule};`}
`;
const Result = styled.span`
  font-weight: 600;
  white-space: nowrap;
`;
const Note = styled.div`
  font-size: ${t.s13};
  color: ${t.soft};
  font-style: italic;
`;

type Term = Schemas["TermOut"];

function TermText({ term }: { term: Term }) {
  return (
    <>
      {term.op && ` ${term.op} `}
      <span title={`exactly ${term.exact}`}>{term.text}</span>
      {term.over && (
        <>
          {" "}
          <Unit $struck={term.over_cancels}>{term.over}</Unit>
        </>
      )}
      {term.under && (
        <>
          <Unit>/</Unit>
          <Unit $struck={term.under_cancels}>{term.under}</Unit>
        </>
      )}
    </>
  );
}

/** The sum as lines of a notebook: one operation a line, units struck out as they cancel, full precision on hover. */
export function Working({ steps }: { steps: Schemas["StepOut"][] }) {
  return (
    <List>
      {steps.map((step, i) => (
        <li key={i}>
          <Title>{step.title}</Title>
          <Sum>
            {step.terms.map((term, j) => (
              <TermText key={j} term={term} />
            ))}
            {" = "}
            <Result>
              <TermText term={step.result} />
            </Result>
          </Sum>
          {step.note && <Note>{step.note}</Note>}
        </li>
      ))}
    </List>
  );
}
