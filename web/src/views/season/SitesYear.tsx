import { Link } from "react-router";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useSitesYear } from "../../api/outings";
import { useAccount } from "../../app/session";
import { t } from "../../app/theme";
import { Ledger } from "../../parts/Ledger";
import { Page } from "../../parts/Page";
import { Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { Waiting } from "../../parts/Waiting";
import { seasonParts } from "./seasonParts";

type Site = Schemas["SiteYearOut"];

const Bar = styled.svg`
  display: block;
  width: 120px;
  height: 10px;
`;
const Under = styled.div`
  font-weight: 400;
`;
const Late = styled.span`
  color: ${t.stop};
  font-weight: 600;
`;

/** How far a site's turns of the year are: done, then skipped or missed, then still to come. */
function Progress({ site }: { site: Site }) {
  if (!site.turns) return <span className="soft">no programme</span>;
  const share = (n: number) => (120 * n) / site.turns;
  const done = share(site.done);
  return (
    <>
      <Bar aria-hidden viewBox="0 0 120 10">
        <rect width="120" height="10" fill="none" stroke={t.hair} />
        <rect width={done} height="10" fill={t.accent} />
        <rect x={done} width={share(site.skipped + site.missed)} height="10" fill={t.rule} />
      </Bar>
      <span className="soft">
        {[
          `${site.done} of ${site.turns} done`,
          site.skipped && `${site.skipped} skipped`,
          site.missed && `${site.missed} missed`,
        ]
          .filter(Boolean)
          .join(", ")}
      </span>
    </>
  );
}

const states = (site: Site) =>
  [site.due && `${site.due} due`, site.coming && `${site.coming} coming`].filter(Boolean).join(", ");

/** The year of all sites on one page. */
export function SitesYear() {
  const account = useAccount();
  const found = useSitesYear();
  return (
    <Waiting of={found}>
      {(data) => (
        <Page sentence={data.sentence}>
          <SubRule label="Parts of the season" parts={seasonParts(account)} />
          <Section title={`The year ${data.year}`}>
            <Ledger>
              <thead>
                <tr>
                  <th scope="col">Site</th>
                  <th scope="col">Now</th>
                  <th scope="col" className="wide">
                    Next
                  </th>
                  <th scope="col" className="wide">
                    Last
                  </th>
                  <th scope="col">The year’s turns</th>
                </tr>
              </thead>
              <tbody>
                {data.sites.map((s) => (
                  <tr key={s.id}>
                    <th scope="row">
                      <Link to={`/a/${account.slug}/ground/site/${s.id}`}>{s.name}</Link>
                      <Under className="soft">
                        {[s.route, `${s.areas} ${s.areas === 1 ? "area" : "areas"}`]
                          .filter(Boolean)
                          .join(" · ")}
                      </Under>
                    </th>
                    <td>
                      {s.late > 0 && <Late>{`■ ${s.late} late`}</Late>}
                      {s.late > 0 && states(s) && ", "}
                      {states(s) || (s.late ? "" : "nothing due")}
                      <div className="soft narrow">{[s.next, s.last].filter(Boolean).join(" · ")}</div>
                    </td>
                    <td className="wide">{s.next}</td>
                    <td className="wide">{s.last}</td>
                    <td>
                      <Progress site={s} />
                    </td>
                  </tr>
                ))}
              </tbody>
            </Ledger>
          </Section>
        </Page>
      )}
    </Waiting>
  );
}
