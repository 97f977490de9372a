import type { ReactNode } from "react";
import styled from "styled-components";
import { t } from "../../app/theme";

const Layout = styled.main`
  display: grid;
  grid-template-columns: 1fr 420px;
  gap: 72px;
  max-width: 1080px;
  margin: 0 auto;
  padding: 14vh 32px 48px;
  align-items: start;
  ${t.phone} {
    grid-template-columns: 1fr;
    gap: 28px;
    padding: 32px 16px;
  }
`;
const Pitch = styled.div`
  h1 {
    font-size: ${t.s34};
    margin-bottom: 18px;
  }
  p {
    max-width: 46ch;
    font-size: ${t.s18};
    color: ${t.soft};
  }
  p + p {
    margin-top: 12px;
  }
`;
const Graduation = styled.div`
  height: 22px;
  margin: 0 0 28px;
  border-bottom: 1px solid ${t.rule};
  background:
    repeating-linear-gradient(90deg, ${t.ink} 0 1px, transparent 1px 80px) left bottom / 100% 20px no-repeat,
    repeating-linear-gradient(90deg, ${t.rule} 0 1px, transparent 1px 8px) left bottom / 100% 8px no-repeat;
`;
const Panel = styled.div`
  display: grid;
  gap: 20px;
`;

/** The page before one is in: what this is, and beside it the way in. */
export function DoorLayout({ children }: { children: ReactNode }) {
  return (
    <Layout>
      <Pitch>
        <Graduation />
        <h1>Green Measure</h1>
        <p>
          From the label’s rate to the right grams in the right tank on the right morning, and into the book.
        </p>
        <p>The product label and local law come first, always. This does the measuring and the sums.</p>
      </Pitch>
      <Panel>{children}</Panel>
    </Layout>
  );
}
