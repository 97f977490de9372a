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
const Mark = styled.span<{ $stand: string }>`
  color: ${({ $stand }) => ($stand === "within" ? t.soft : $stand === "above" ? t.stop : t.caution)};
  font-size: ${t.s13};
  font-weight: ${({ $stand }) => ($stand === "within" ? 400 : 600)};
`;

/** Entries of the book, one a row, each with its actual rate on its label's range. */
export function BookTable({ entries }: { entries: Schemas["EntryOut"][] }) {
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
        {entries.map((e) => (
          <tr key={e.id}>
            <td style={{ whiteSpace: "nowrap" }}>{e.day}</td>
            <td>
              <Link to={`/a/${account.slug}/book/${e.id}`}>{e.product}</Link> on {e.area}
              {e.use && <div className="soft">{e.use}</div>}
            </td>
            <td className="wide figure">{e.used}</td>
            <td className="figure">
              {e.actual}
              <div>
                <Mark $stand={e.judgement.stand}>{e.judgement.word.toLowerCase()}</Mark>
              </div>
            </td>
            <td className="wide">
              <Mini>
                <RateRule small rule={e.rule} label="Actual rate on the label's range" text={e.actual} />
              </Mini>
            </td>
            <td className="wide soft">{e.by}</td>
          </tr>
        ))}
      </tbody>
    </Ledger>
  );
}
