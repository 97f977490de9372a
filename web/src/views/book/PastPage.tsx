import { useQuery, keepPreviousData } from "@tanstack/react-query";
import { useRef } from "react";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { api, read, send, type Schemas } from "../../api/client";
import { useAreas, useChange, useMachines, usePath, useProducts } from "../../api/hooks";
import { useDraft } from "../../app/draft";
import { useAccount, useMay } from "../../app/session";
import { t } from "../../app/theme";
import { say } from "../../app/toast";
import { useSettled } from "../../app/useSettled";
import { Button } from "../../parts/Button";
import { DateField } from "../../parts/DateField";
import { Empty } from "../../parts/Empty";
import { Hint } from "../../parts/Field";
import { Line } from "../../parts/Line";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { Bar, Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { TextField } from "../../parts/TextField";
import { bookParts } from "./bookParts";

interface Row {
  date: string;
  area: string;
  product: string;
  machine: string;
  amount: string;
}
const COLUMNS = ["date", "area", "product", "machine", "amount"] as const;
const blank: Row = { date: "", area: "", product: "", machine: "", amount: "" };

const Rows = styled.ol`
  display: grid;
  gap: 18px;
`;
const Answer = styled.p<{ $fault: boolean }>`
  margin-top: 4px;
  color: ${({ $fault }) => ($fault ? t.stop : t.soft)};
  &::before {
    content: ${({ $fault }) => ($fault ? '"! "' : '""')};
    font-weight: 700;
  }
`;

const whole = (row: Row) => COLUMNS.every((c) => row[c].trim());
const cell = (text: string) => `"${text.trim().replaceAll('"', '""')}"`;
const csv = (rows: Row[], areas: Schemas["AreaOut"][]) => {
  const lines = rows.map((r) => {
    const area = areas.find((a) => `${a.id}` === r.area);
    return [r.date, area?.name ?? "", area?.site ?? "", r.product, r.machine, r.amount].map(cell).join(",");
  });
  return ["date,area,site,product,machine,amount", ...lines].join("\n");
};

/** What each line would put in the book, as it is typed. */
function usePreview(text: string) {
  const path = usePath();
  return useQuery({
    queryKey: [path.account, "past", text],
    queryFn: ({ signal }) =>
      read(
        api.POST("/api/accounts/{account}/rounds/import/preview", {
          params: { path },
          body: { text },
          signal,
        }),
      ),
    enabled: text.includes("\n"),
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** A run of past applications, typed one under the other: each says at once what it comes to. */
export function PastPage() {
  const account = useAccount();
  const may = useMay("manager");
  const navigate = useNavigate();
  const areas = useAreas().data?.areas ?? [];
  const products = useProducts().data ?? [];
  const machines = useMachines().data ?? [];
  const draft = useDraft(`${account.slug}/past`, { rows: [blank] });
  const { rows } = draft.value;
  const list = useRef<HTMLOListElement>(null);
  const ready = rows.filter(whole);
  const text = csv(ready, areas);
  const settled = useSettled(text, 350);
  const seen = usePreview(settled);
  const told = seen.data && !seen.isPlaceholderData && settled === text ? seen.data : undefined;
  const keep = useChange((path, text: string) =>
    read(send.POST("/api/accounts/{account}/rounds/import", { params: { path }, body: { text } })),
  );
  const set = (i: number, part: Partial<Row>) =>
    draft.change((now) => ({ rows: now.rows.map((r, j) => (j === i ? { ...r, ...part } : r)) }));
  const another = () => {
    const last = rows[rows.length - 1] ?? blank;
    draft.change({ rows: [...rows, { ...last, date: "", amount: "" }] });
    // the next one begins with its day; everything else is as in the last
    requestAnimationFrame(() =>
      list.current?.querySelector<HTMLInputElement>("li:last-child input")?.focus(),
    );
  };
  const answerOf = (row: Row) =>
    ready.length && whole(row) ? told?.lines.find((x) => x.line === ready.indexOf(row) + 2) : undefined;
  const twice = (area: Schemas["AreaOut"]) => areas.filter((a) => a.name === area.name).length > 1;
  const names = (things: { name: string }[]) => things.map((x) => ({ key: x.name, text: x.name }));
  return (
    <Page sentence={told && ready.length ? told.sentence : "Past applications, typed one under the other."}>
      <SubRule label="Parts of the book" parts={bookParts(account.slug, may)} />
      {!may && <Notice tone="note">Only a manager brings in past records.</Notice>}
      {may && (areas.length === 0 || products.length === 0 || machines.length === 0) && (
        <Empty>An area, a product and a machine come first: the book goes by their names.</Empty>
      )}
      {may && areas.length > 0 && products.length > 0 && machines.length > 0 && (
        <Section title="What went down">
          <form
            aria-label="Past applications"
            onSubmit={(e) => {
              e.preventDefault();
              another();
            }}
          >
            <Rows ref={list}>
              {rows.map((row, i) => {
                const answer = answerOf(row);
                return (
                  <li key={i}>
                    <Line $columns="150px minmax(0, 1.2fr) minmax(0, 1.5fr) minmax(0, 1.2fr) minmax(0, 1.2fr)">
                      <DateField
                        label="Day"
                        name={`${i}.date`}
                        value={row.date}
                        onChange={(date) => set(i, { date })}
                      />
                      <PickField
                        label="Area"
                        name={`${i}.area`}
                        value={row.area || null}
                        options={areas.map((a) => ({
                          key: `${a.id}`,
                          text: a.name,
                          note: twice(a) ? a.site : undefined,
                        }))}
                        onChange={(area) => set(i, { area })}
                        placeholder="Pick one"
                      />
                      <PickField
                        label="Product"
                        name={`${i}.product`}
                        value={row.product || null}
                        options={names(products)}
                        onChange={(product) => set(i, { product })}
                        placeholder="Pick one"
                      />
                      <PickField
                        label="Machine"
                        name={`${i}.machine`}
                        value={row.machine || null}
                        options={names(machines)}
                        onChange={(machine) => set(i, { machine })}
                        placeholder="Pick one"
                      />
                      <TextField
                        label="Used, or its rate"
                        name={`${i}.amount`}
                        value={row.amount}
                        onChange={(amount) => set(i, { amount })}
                      />
                      {rows.length > 1 ? (
                        <Button
                          look="quiet"
                          aria-label={`Remove line ${i + 1}`}
                          onPress={() => draft.change({ rows: rows.filter((_, j) => j !== i) })}
                        >
                          Remove
                        </Button>
                      ) : (
                        <span />
                      )}
                    </Line>
                    {answer && (
                      <Answer $fault={answer.act === "refused"} role="status">
                        {answer.act === "same"
                          ? "The book has it already."
                          : [...answer.changes, ...answer.problems].join(" ")}
                      </Answer>
                    )}
                  </li>
                );
              })}
            </Rows>
            <Fault error={seen.error ?? keep.error} />
            <Bar>
              <Button type="submit">Next line</Button>
              <Button
                look="main"
                isDisabled={!told || told.refused > 0 || ready.length === 0 || keep.isPending}
                onPress={() =>
                  keep.mutate(text, {
                    onSuccess: (done) => {
                      draft.clear({ rows: [blank] });
                      say(done.sentence);
                      void navigate(`/a/${account.slug}/book`);
                    },
                  })
                }
              >
                Put them in the book
              </Button>
            </Bar>
          </form>
          <Hint style={{ marginTop: 16 }}>
            Write 12 lb, 3.5 fl oz, or 0.5 lb N per 1000 ft². Enter begins the next line, on the same area
            with the same product. What went against a label is recorded and marked; the stock stays as it is.
          </Hint>
        </Section>
      )}
    </Page>
  );
}
