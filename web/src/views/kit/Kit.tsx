import { Link } from "react-router";
import { useMachines } from "../../api/hooks";
import { useClub, useMay } from "../../app/session";
import { ButtonLink } from "../../parts/Button";
import { Empty } from "../../parts/Empty";
import { Ledger } from "../../parts/Ledger";
import { Page } from "../../parts/Page";
import { Waiting } from "../../parts/Waiting";

/** The club's machines. */
export function Kit() {
  const club = useClub();
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
        <Page
          sentence={
            list.length
              ? `${list.length === 1 ? "One machine" : `${list.length} machines`} to put it down with.`
              : "No machines yet."
          }
          act={may && list.length > 0 && add}
        >
          {list.length === 0 ? (
            <Empty act={may && add}>
              A sprayer needs its tank size and what one pass puts down per area; a spreader needs what its
              hopper holds. Walk a measured strip with water to find a sprayer’s output.
            </Empty>
          ) : (
            <Ledger>
              <thead>
                <tr>
                  <th>Machine</th>
                  <th>What</th>
                  <th className="figure">Holds</th>
                  <th className="figure">Output of a pass</th>
                  <th className="wide figure">A filling covers</th>
                  <th className="wide">Note</th>
                </tr>
              </thead>
              <tbody>
                {list.map((m) => (
                  <tr key={m.id}>
                    <td>{may ? <Link to={`/c/${club.slug}/kit/${m.id}`}>{m.name}</Link> : m.name}</td>
                    <td>{m.kind}</td>
                    <td className="figure">{m.capacity.text}</td>
                    <td className="figure">{m.output?.text ?? ""}</td>
                    <td className="wide figure">{m.reach}</td>
                    <td className="wide soft">{m.note}</td>
                  </tr>
                ))}
              </tbody>
            </Ledger>
          )}
        </Page>
      )}
    </Waiting>
  );
}
