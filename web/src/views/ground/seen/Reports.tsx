import { useState } from "react";
import styled from "styled-components";
import type { Schemas } from "../../../api/client";
import { useMay } from "../../../app/session";
import { t } from "../../../app/theme";
import { Button } from "../../../parts/Button";
import { Ledger } from "../../../parts/Ledger";
import { StrikeReport } from "./StrikeReport";

const Words = styled.div`
  color: ${t.soft};
  font-size: ${t.s13};
`;
const Title = styled.span<{ $struck: boolean }>`
  text-decoration: ${({ $struck }) => ($struck ? "line-through" : "none")};
`;

/** Scout reports, the newest first; each can be struck with a reason. */
export function Reports({ reports }: { reports: Schemas["ScoutOut"][] }) {
  return (
    <Ledger style={{ marginTop: 14 }}>
      <tbody>
        {reports.map((r) => (
          <Row key={r.id} report={r} />
        ))}
      </tbody>
    </Ledger>
  );
}

function Row({ report }: { report: Schemas["ScoutOut"] }) {
  const may = useMay("applicator");
  const [striking, setStriking] = useState(false);
  return (
    <tr>
      <td className="day">{report.day}</td>
      <td>
        {report.what && (report.seen ? "▲ " : "○ ")}
        <Title $struck={!!report.struck}>{report.text}</Title>
        {[report.named, report.note].filter(Boolean).map((said) => (
          <Words key={said}>{said}</Words>
        ))}
        {report.struck && <Words>{report.struck}</Words>}
        {striking && (
          <div style={{ margin: "10px 0" }}>
            <StrikeReport id={report.id} text={report.text} onDone={() => setStriking(false)} />
          </div>
        )}
      </td>
      <td className="soft wide">{report.by}</td>
      <td className="figure">
        {may && !report.struck && !striking && (
          <Button
            look="quiet"
            aria-label={`Strike: ${report.text}, ${report.day}`}
            onPress={() => setStriking(true)}
          >
            Strike
          </Button>
        )}
      </td>
    </tr>
  );
}
