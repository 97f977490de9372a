import styled from "styled-components";
import { useAccount } from "../../app/session";
import { OnScreen, Section } from "../../parts/Section";

const Papers = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 24px;
`;

/** What of an application goes on paper: for the gate, and for the customer. */
export function OnPaper({ application }: { application: number }) {
  const { slug } = useAccount();
  const at = `/api/accounts/${slug}/proof/${application}`;
  return (
    <OnScreen>
      <Section title="On paper">
        <Papers>
          <li>
            <a href={`${at}/gate.pdf`} target="_blank" rel="noreferrer">
              Notice for the gate
            </a>
          </li>
          <li>
            <a href={`${at}/note.pdf`} target="_blank" rel="noreferrer">
              Customer’s note
            </a>
          </li>
        </Papers>
      </Section>
    </OnScreen>
  );
}
