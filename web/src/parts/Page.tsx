import type { ReactNode } from "react";
import styled from "styled-components";
import { t } from "../app/theme";
import { useBack } from "../app/useBack";
import { useHeadFocus } from "../app/useHeadFocus";
import { useTitle } from "../app/useTitle";
import { ButtonLink } from "./Button";

const Grid = styled.main`
  display: grid;
  grid-template-columns: minmax(0, 8fr) minmax(0, 4fr);
  gap: 0 40px;
  max-width: 1280px;
  margin: 0 auto;
  padding: 28px 32px 64px;
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr);
    padding: 18px 16px 110px;
  }
  @media print {
    display: flex;
    flex-direction: column;
    padding: 0;
  }
`;

const Head = styled.header<{ $steady: boolean }>`
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 12px 24px;
  align-items: baseline;
  justify-content: space-between;
  padding-bottom: 20px;
  @media print {
    order: -2;
    padding-bottom: 10px;
  }
  h1 {
    flex: 1 1 420px;
    max-width: 34em;
    outline: none;
    min-height: ${({ $steady }) => ($steady ? "2lh" : "0")};
    ${t.phone} {
      min-height: ${({ $steady }) => ($steady ? "3lh" : "0")};
    }
    @media print {
      min-height: 0;
    }
  }
`;

const Acts = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
`;
const Whole = styled.span`
  white-space: nowrap;
`;

/** A sentence whose names with figures and hyphens, such as 12-0-5, stay on one line. */
function unbroken(sentence: ReactNode): ReactNode {
  if (typeof sentence !== "string") return sentence;
  return sentence.split(/(\S*\d-\d\S*)/).map((part, i) => (i % 2 ? <Whole key={i}>{part}</Whole> : part));
}

const Margin = styled.aside`
  border-left: 1px solid ${t.hair};
  padding-left: 24px;
  ${t.phone} {
    border-left: 0;
    border-top: 1px solid ${t.hair};
    padding: 20px 0 0;
    margin-top: 24px;
  }
  @media print {
    order: -1;
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0 24px;
    border: 0;
    padding: 0 0 16px;
    margin: 0;
    font-size: 9.5pt;
    > section {
      margin-top: 0 !important;
    }
  }
`;

interface Props {
  sentence: ReactNode;
  /** What the window is called, where the sentence is more than text. */
  title?: string;
  act?: ReactNode;
  margin?: ReactNode;
  /** Room is kept for a longer sentence, so that nothing moves under a finger that ticks one thing after another. */
  steady?: boolean;
  children: ReactNode;
}

/** A view: one sentence that says the state and the next thing, the work, and a margin beside it. */
export function Page({ sentence, title, act, margin, steady = false, children }: Props) {
  const head = useHeadFocus();
  const back = useBack();
  useTitle(title ?? (typeof sentence === "string" ? sentence : ""));
  return (
    <Grid id="main">
      <Head $steady={steady}>
        <h1 ref={head} tabIndex={-1} aria-live="polite">
          {unbroken(sentence)}
        </h1>
        {(act || back) && (
          <Acts>
            {back && <ButtonLink to={back}>Back to what you were doing</ButtonLink>}
            {act}
          </Acts>
        )}
      </Head>
      <div style={margin ? undefined : { gridColumn: "1 / -1" }}>{children}</div>
      {margin && <Margin aria-label="Notes in the margin">{margin}</Margin>}
    </Grid>
  );
}
