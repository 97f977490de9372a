import { keepPreviousData, useQuery } from "@tanstack/react-query";
import styled from "styled-components";
import { api, ApiError, read } from "../../api/client";
import { useAreas, usePath, useProducts } from "../../api/hooks";
import { useAsked } from "../../app/asked";
import { useAccount, useMay } from "../../app/session";
import { t } from "../../app/theme";
import { DateField } from "../../parts/DateField";
import { Empty } from "../../parts/Empty";
import { Facts } from "../../parts/Facts";
import { FaultsContext, faultsOf } from "../../parts/faults";
import { Ledger } from "../../parts/Ledger";
import { Fault } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { Fields, Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { bookParts } from "./bookParts";

const ALL = "all";
const FIELDS = ["begin", "end", "site_id", "area_id", "product_id"] as const;
const Out = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 24px;
  margin: 14px 0 0;
`;
const Small = styled.small`
  display: block;
  color: ${t.soft};
`;

/** Records as authorities and customers want them: by days, ground and product; on paper, as CSV and as JSON. */
export function RecordsPage() {
  const account = useAccount();
  const manager = useMay("manager");
  const path = usePath();
  const [search, setSearch] = useAsked();
  const areas = useAreas().data?.areas ?? [];
  const products = useProducts().data ?? [];
  const asked = Object.fromEntries(FIELDS.flatMap((f) => (search.get(f) ? [[f, search.get(f)!]] : [])));
  const change = (field: (typeof FIELDS)[number], value: string) =>
    setSearch({ [field]: value === ALL ? "" : value });
  const found = useQuery({
    queryKey: [account.slug, "records", asked],
    queryFn: () => read(api.GET("/api/accounts/{account}/proof/records", { params: { path, query: asked } })),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const query = new URLSearchParams(asked).toString();
  const file = (kind: string) => `/api/accounts/${account.slug}/proof/records${kind}?${query}`;
  const told = found.error ? undefined : found.data;
  return (
    <Page sentence={told?.sentence ?? "Records of applications."}>
      <SubRule label="Parts of the book" parts={bookParts(account.slug, manager)} />
      <FaultsContext.Provider value={faultsOf(found.error)}>
        <Section title="Which">
          <Fields $columns={4}>
            <DateField
              label="From"
              name="begin"
              value={search.get("begin") ?? ""}
              onChange={(v) => change("begin", v)}
            />
            <DateField
              label="To"
              name="end"
              value={search.get("end") ?? ""}
              onChange={(v) => change("end", v)}
            />
            {account.sites.length > 1 && (
              <PickField
                label="Site"
                name="site_id"
                value={search.get("site_id") ?? ALL}
                options={[
                  { key: ALL, text: "All of them" },
                  ...account.sites.map((s) => ({ key: `${s.id}`, text: s.name })),
                ]}
                onChange={(v) => change("site_id", v)}
              />
            )}
            <PickField
              label="Area"
              name="area_id"
              value={search.get("area_id") ?? ALL}
              options={[
                { key: ALL, text: "All of them" },
                ...areas.map((a) => ({ key: `${a.id}`, text: a.name })),
              ]}
              onChange={(v) => change("area_id", v)}
            />
            <PickField
              label="Product"
              name="product_id"
              value={search.get("product_id") ?? ALL}
              options={[
                { key: ALL, text: "All of them" },
                ...products.map((p) => ({ key: `${p.id}`, text: p.name })),
              ]}
              onChange={(v) => change("product_id", v)}
            />
          </Fields>
          {told && told.records.length > 0 && (
            <Out>
              <a href={file(".pdf")} target="_blank" rel="noreferrer">
                Print them (PDF)
              </a>
              <a href={file(".csv")} download>
                As CSV
              </a>
              <a href={file("")} download={`${account.slug}-records.json`}>
                As JSON
              </a>
            </Out>
          )}
        </Section>
      </FaultsContext.Provider>
      {found.error && !(found.error instanceof ApiError && found.error.fields.length) && (
        <Fault error={found.error} />
      )}
      {told && told.lacks.length > 0 && (
        <Section title="What they lack">
          <Facts of={told.lacks.map((x) => [x.name, x.text])} />
        </Section>
      )}
      {told && told.records.length === 0 && (
        <Empty>
          Nothing went down then, or it is not in the book yet. Choose other days, or type past ones in.
        </Empty>
      )}
      {told && told.records.length > 0 && (
        <Section title="Records">
          <Ledger>
            <thead>
              <tr>
                <th>When</th>
                <th>Where</th>
                <th>What</th>
                <th className="wide">By</th>
                <th className="wide">Re-entry from</th>
              </tr>
            </thead>
            <tbody>
              {told.records.map((r) => (
                <tr key={r.application_id}>
                  <td className="day">
                    {r.day}
                    <Small>{r.begun ? `${r.begun} to ${r.ended}` : r.ended}</Small>
                  </td>
                  <td>
                    {r.area}
                    <Small>{r.treated}</Small>
                  </td>
                  <td>
                    {r.products.map((p) => (
                      <div key={p.product}>
                        {`${p.product}, ${p.rate}`}
                        <Small>{[p.registration, p.amount, p.target].filter(Boolean).join(", ")}</Small>
                      </div>
                    ))}
                  </td>
                  <td className="wide">
                    {r.applicator}
                    <Small>{r.licence}</Small>
                  </td>
                  <td className="wide">{r.reentry}</td>
                </tr>
              ))}
            </tbody>
          </Ledger>
        </Section>
      )}
    </Page>
  );
}
