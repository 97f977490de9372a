import { Fragment } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useAreas } from "../../api/hooks";
import { useAccount, useMay } from "../../app/session";
import { t } from "../../app/theme";
import { ButtonLink } from "../../parts/Button";
import { Empty } from "../../parts/Empty";
import { Ledger } from "../../parts/Ledger";
import { Page } from "../../parts/Page";
import { Waiting } from "../../parts/Waiting";
import { dated } from "../../parts/days";

const Name = styled.td<{ $depth: number }>`
  padding-left: ${({ $depth }) => $depth * 22}px !important;
`;
const SiteName = styled.th`
  font: 500 ${t.s18} ${t.serif};
  padding-top: 18px !important;
`;
const Mind = styled.span`
  color: ${t.caution};
  font-size: ${t.s13};
  font-weight: 600;
`;

/** How deep an area lies among the wholes that it is a part of. */
function depth(area: Schemas["AreaOut"], all: Schemas["AreaOut"][]): number {
  const parent = all.find((a) => a.id === area.parent_id);
  return parent ? depth(parent, all) + 1 : 0;
}

/** The account's ground. */
export function Ground() {
  const account = useAccount();
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
          act={
            <>
              <ButtonLink to="files">Import and export</ButtonLink>
              {may && list.length > 0 && add}
            </>
          }
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
                  <th className="wide">Soil</th>
                  <th className="wide">Take care</th>
                </tr>
              </thead>
              <tbody>
                {list.map((a, i) => (
                  <Fragment key={a.id}>
                    {account.sites.length > 1 && a.site_id !== list[i - 1]?.site_id && (
                      <tr>
                        <SiteName colSpan={7} scope="rowgroup">
                          {a.site}
                        </SiteName>
                      </tr>
                    )}
                    <tr>
                      <Name $depth={depth(a, list)}>
                        <Link to={`/a/${account.slug}/ground/${a.id}`}>{a.name}</Link>
                        <div className="soft">
                          {[a.use, a.zone && `zone ${a.zone}`].filter(Boolean).join(", ")}
                        </div>
                      </Name>
                      <td className="figure">{a.size.text}</td>
                      <td className="wide figure soft">{a.also}</td>
                      <td>{a.grass_name}</td>
                      <td className="figure">{a.height?.text ?? ""}</td>
                      <td className="wide soft">{[a.texture_name, a.ph].filter(Boolean).join(", ")}</td>
                      <td className="wide">
                        {a.stress !== "none" && <Mind>{a.stress_text}</Mind>}
                        <div className="soft">
                          {[...new Set(a.hazards.map((h) => h.kind_text))].join(", ")}
                          {a.overseed_on && ` overseeding ${dated(a.overseed_on)}`}
                        </div>
                      </td>
                    </tr>
                  </Fragment>
                ))}
              </tbody>
            </Ledger>
          )}
        </Page>
      )}
    </Waiting>
  );
}
