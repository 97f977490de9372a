import styled from "styled-components";
import { useLineExamples } from "../api/hooks";
import { lately } from "./lately";
import { useAccount } from "./session";
import { t } from "./theme";

const Head = styled.h3`
  font: 600 ${t.s15} ${t.text};
  margin: 18px 0 2px;
`;
const List = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
`;
const Line = styled.button`
  display: flex;
  flex-wrap: wrap;
  gap: 0 12px;
  width: 100%;
  border: 0;
  border-bottom: 1px solid ${t.rule};
  background: none;
  padding: 6px 0;
  text-align: left;
  cursor: pointer;
  font: 400 ${t.s15} ${t.text};
  color: ${t.soft};
  strong {
    font-weight: 500;
    color: ${t.ink};
  }
  &:hover strong {
    color: ${t.accent};
  }
  ${t.phone} {
    min-height: 44px;
  }
`;

/** Lines to begin with: those asked lately, and one of each sort in the account's own names. */
export function LineExamples({ onPick }: { onPick: (line: string) => void }) {
  const account = useAccount();
  const { data } = useLineExamples();
  const before = lately(account.slug);
  return (
    <>
      {before.length > 0 && (
        <>
          <Head>Asked lately</Head>
          <List>
            {before.map((line) => (
              <li key={line}>
                <Line type="button" onClick={() => onPick(line)}>
                  <strong>{line}</strong>
                </Line>
              </li>
            ))}
          </List>
        </>
      )}
      {data && data.length > 0 && (
        <>
          <Head>Ask in any order of words, for example</Head>
          <List>
            {data.map((x) => (
              <li key={x.line}>
                <Line type="button" onClick={() => onPick(x.line)}>
                  <strong>{x.line}</strong> {x.what}
                </Line>
              </li>
            ))}
          </List>
        </>
      )}
    </>
  );
}
