import { Link } from "react-router";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useMachines } from "../../api/hooks";
import { useAccount, useMay } from "../../app/session";
import { t } from "../../app/theme";
import { ButtonLink } from "../../parts/Button";
import { Empty } from "../../parts/Empty";
import { Ledger } from "../../parts/Ledger";
import { Page } from "../../parts/Page";
import { Waiting } from "../../parts/Waiting";
import { Vessels } from "./Vessels";

const Mind = styled.p`
  font-size: ${t.s13};
  color: ${t.caution};
`;

/** A machine in the list, and under it what it asks for. */
function MachineRow({ machine: m }: { machine: Schemas["MachineOut"] }) {
  const account = useAccount();
  const asks = m.findings[0];
  const open = asks && { borderBottom: 0, paddingBottom: 0 };
  return (
    <>
      <tr>
        <td style={open}>
          <Link to={`/a/${account.slug}/kit/${m.id}`}>{m.name}</Link>
          <div className="soft narrow">{m.form_text}</div>
        </td>
        <td className="wide" style={open}>
          {m.form_text}
        </td>
        <td className="figure" style={open}>
          {m.capacity.text}
          {m.reach && <div className="soft">covers {m.reach}</div>}
        </td>
        <td className="figure loose" style={open}>
          {m.output?.text ?? ""}
        </td>
        <td className="wide soft" style={open}>
          {m.state}
        </td>
        <td className="wide soft" style={open}>
          {m.tank}
        </td>
      </tr>
      {asks && (
        <tr>
          <td colSpan={6} style={{ paddingTop: 2 }}>
            <Mind>{asks.sentence}</Mind>
          </td>
        </tr>
      )}
    </>
  );
}

/** How many there are, and which of them asks for something. */
function sentence(list: Schemas["MachineOut"][]) {
  if (!list.length) return "No machines yet.";
  const count = list.length === 1 ? "One machine" : `${list.length} machines`;
  const asking = list.filter((m) => m.findings.length);
  if (!asking.length) return `${count} to put it down with.`;
  return `${count} to put it down with; ${asking.length === 1 ? `${asking[0]!.name} asks` : `${asking.length} ask`} to be calibrated.`;
}

/** The account's machines, and what it measures with. */
export function Kit() {
  const machines = useMachines();
  const may = useMay("manager");
  const add = (
    <ButtonLink look="main" to="new">
      Add a machine
    </ButtonLink>
  );
  return (
    <Waiting of={machines}>
      {(list) => (
        <Page sentence={sentence(list)} act={may && list.length > 0 && add}>
          {list.length === 0 ? (
            <Empty act={may && add}>
              A sprayer needs its tank size, a spreader what its hopper holds. What one pass puts down is
              found on a bench: walk a measured strip with water, or weigh granules in and out.
            </Empty>
          ) : (
            <Ledger>
              <thead>
                <tr>
                  <th>Machine</th>
                  <th className="wide">What</th>
                  <th className="figure">Holds</th>
                  <th className="figure">Puts down in a pass</th>
                  <th className="wide">How that is known</th>
                  <th className="wide">Last in it</th>
                </tr>
              </thead>
              <tbody>
                {list.map((m) => (
                  <MachineRow key={m.id} machine={m} />
                ))}
              </tbody>
            </Ledger>
          )}
          <Vessels />
        </Page>
      )}
    </Waiting>
  );
}
