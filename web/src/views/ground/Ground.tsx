import { Link } from "react-router";
import { useAreas } from "../../api/hooks";
import { useClub, useMay } from "../../app/session";
import { ButtonLink } from "../../parts/Button";
import { Empty } from "../../parts/Empty";
import { Ledger } from "../../parts/Ledger";
import { Page } from "../../parts/Page";
import { Waiting } from "../../parts/Waiting";

/** The club's ground. */
export function Ground() {
  const club = useClub();
  const areas = useAreas();
  const may = useMay("manager");
  const add = (
    <ButtonLink look="main" to="new">
      Add an area
    </ButtonLink>
  );
  return (
    <Waiting of={areas}>
      {({ areas: list, total }) => (
        <Page
          sentence={
            list.length
              ? `${list.length === 1 ? "One area" : `${list.length} areas`}, ${total} in all.`
              : "No ground yet."
          }
          act={may && list.length > 0 && add}
        >
          {list.length === 0 ? (
            <Empty act={may && add}>
              Every sum starts with an area: how big it is, what grows there, how short it is cut. Measure
              each piece by itself; several can go into one job later.
            </Empty>
          ) : (
            <Ledger>
              <thead>
                <tr>
                  <th>Area</th>
                  <th className="figure">Size</th>
                  <th className="wide figure">Also</th>
                  <th>Grass</th>
                  <th className="figure">Cut at</th>
                  <th className="wide">Note</th>
                </tr>
              </thead>
              <tbody>
                {list.map((a) => (
                  <tr key={a.id}>
                    <td>{may ? <Link to={`/c/${club.slug}/ground/${a.id}`}>{a.name}</Link> : a.name}</td>
                    <td className="figure">{a.size.text}</td>
                    <td className="wide figure soft">{a.also}</td>
                    <td>{a.grass_name}</td>
                    <td className="figure">{a.height?.text ?? ""}</td>
                    <td className="wide soft">{a.note}</td>
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
