import { Fragment, useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useAreas } from "../../api/hooks";
import { useAccount, useMay } from "../../app/session";
import { useListAddress } from "../../app/useListAddress";
import { t } from "../../app/theme";
import { Button, ButtonLink } from "../../parts/Button";
import { Empty } from "../../parts/Empty";
import { Ledger } from "../../parts/Ledger";
import { Hint } from "../../parts/Field";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { Bar, Finder } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { Waiting } from "../../parts/Waiting";
import { dated } from "../../parts/days";
import { holds } from "../../parts/searching";

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

type Area = Schemas["AreaOut"];

const usual = { words: "", site: "", by: "name" };
/** From how many areas on they are searched. */
const MANY = 6;
/** How many are shown at once. */
const PAGE = 100;

/** How deep an area lies among the wholes that it is a part of. */
function depth(area: Area, all: Area[]): number {
  const parent = all.find((a) => a.id === area.parent_id);
  return parent ? depth(parent, all) + 1 : 0;
}

/** The account's ground. */
export function Ground() {
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
            <AreaList list={list} />
          )}
        </Page>
      )}
    </Waiting>
  );
}

/** The areas that are searched for, in the order that is asked: parts under their wholes, or the largest first. */
function AreaList({ list }: { list: Area[] }) {
  const account = useAccount();
  const { value, set, narrowed } = useListAddress(usual);
  const [pages, setPages] = useState(1);
  const found = list.filter(
    (a) =>
      (!value.site || `${a.site_id}` === value.site) &&
      holds([a.name, a.site, a.grass_name, a.use, a.zone, a.texture_name, a.note], value.words),
  );
  const ordered = value.by === "size" ? [...found].sort((a, b) => b.m2 - a.m2) : found;
  const shown = ordered.slice(0, pages * PAGE);
  const nested = !narrowed;
  const grouped = account.sites.length > 1 && value.by === "name";
  return (
    <>
      {list.length > MANY && (
        <Finder $columns={3}>
          <TextField label="Search" name="words" value={value.words} onChange={(words) => set({ words })} />
          {account.sites.length > 1 && (
            <PickField
              label="Site"
              name="site"
              value={value.site}
              options={[
                { key: "", text: "All sites" },
                ...account.sites.map((s) => ({ key: `${s.id}`, text: s.name })),
              ]}
              onChange={(site) => set({ site })}
            />
          )}
          <PickField
            label="Order"
            name="by"
            value={value.by}
            options={[
              { key: "name", text: "By name" },
              { key: "size", text: "Largest first" },
            ]}
            onChange={(by) => set({ by })}
          />
        </Finder>
      )}
      {shown.length === 0 && <Hint>No area is like that.</Hint>}
      {shown.length > 0 && (
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
            {shown.map((a, i) => (
              <Fragment key={a.id}>
                {grouped && a.site_id !== shown[i - 1]?.site_id && (
                  <tr>
                    <SiteName colSpan={7} scope="rowgroup">
                      {a.site}
                    </SiteName>
                  </tr>
                )}
                <tr>
                  <Name $depth={nested ? depth(a, list) : 0}>
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
      {ordered.length > shown.length && (
        <Bar style={{ marginTop: 16 }}>
          <Button onPress={() => setPages(pages + 1)}>
            {`Show ${Math.min(PAGE, ordered.length - shown.length)} more of ${ordered.length}`}
          </Button>
        </Bar>
      )}
    </>
  );
}
