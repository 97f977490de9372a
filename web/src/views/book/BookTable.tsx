import { Link } from "react-router";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useAccount } from "../../app/session";
import { t } from "../../app/theme";
import { Ledger } from "../../parts/Ledger";
import { RateRule } from "../../parts/RateRule";

const Mini = styled.div`
  width: 150px;
`;
/** One product of an application: of several each has as much room in every column, so that a line reads across. */
const Each = styled.div<{ $several: boolean }>`
  min-height: ${({ $several }) => ($several ? "52px" : 0)};
`;
const Told = styled.div`
  display: inline-block;
  color: ${t.soft};
  font-size: ${t.s13};
`;
const Mark = styled.span<{ $stand: string }>`
  color: ${({ $stand }) => ($stand === "within" ? t.soft : $stand === "above" ? t.stop : t.caution)};
  font-size: ${t.s13};
  font-weight: ${({ $stand }) => ($stand === "within" ? 400 : 600)};
`;

const Row = styled.tr<{ $several: boolean; $struck: boolean }>`
  text-decoration: ${({ $struck }) => ($struck ? "line-through" : "none")};
  > td {
    vertical-align: ${({ $several }) => ($several ? "top" : "baseline")};
  }
`;

/** Applications of the book, one a row, each product with its actual rate on its label's range. */
export function BookTable({ applications }: { applications: Schemas["ApplicationOut"][] }) {
  const account = useAccount();
  return (
    <Ledger>
      <thead>
        <tr>
          <th>Day</th>
          <th>What and where</th>
          <th className="wide figure">Used</th>
          <th className="figure">Actual rate</th>
          <th className="wide">Against the label</th>
          <th className="wide">By</th>
        </tr>
      </thead>
      <tbody>
        {applications.map((a) => (
          <Row key={a.id} $several={a.entries.length > 1} $struck={!!a.struck}>
            <td style={{ whiteSpace: "nowrap" }}>{a.day}</td>
            <td>
              <Link to={`/a/${account.slug}/book/${a.id}`}>{a.name}</Link> on {a.area}
              {a.entries.length === 1 && a.entries[0]!.use && <div className="soft">{a.entries[0]!.use}</div>}
              {a.struck && <Told>{a.struck}</Told>}
              {a.formers.length > 0 && <Told>{`Corrected ${a.formers[0]!.day}`}</Told>}
            </td>
            <td className="wide figure">
              {a.entries.map((e) => (
                <Each key={e.id} $several={a.entries.length > 1}>
                  {e.used || "to taste"}
                </Each>
              ))}
            </td>
            <td className="figure">
              {a.entries.map((e) => (
                <Each key={e.id} $several={a.entries.length > 1}>
                  {e.actual}
                  {e.judgement && (
                    <div>
                      <Mark $stand={e.judgement.stand}>{e.judgement.word.toLowerCase()}</Mark>
                    </div>
                  )}
                </Each>
              ))}
            </td>
            <td className="wide">
              {a.entries.map((e) => (
                <Each key={e.id} $several={a.entries.length > 1}>
                  {e.rule && (
                    <Mini>
                      <RateRule
                        small
                        rule={e.rule}
                        label={`Actual rate of ${e.product} on the label's range`}
                        text={e.actual}
                      />
                    </Mini>
                  )}
                </Each>
              ))}
            </td>
            <td className="wide soft">{a.by}</td>
          </Row>
        ))}
      </tbody>
    </Ledger>
  );
}
