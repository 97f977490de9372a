import styled from "styled-components";
import { ApiError, api, read, send, type Schemas } from "../../api/client";
import { useChange } from "../../api/hooks";
import { useAccount, useMay } from "../../app/session";
import { say } from "../../app/toast";
import { t } from "../../app/theme";
import { Button } from "../../parts/Button";
import { Hint } from "../../parts/Field";
import { FileDrop } from "../../parts/FileDrop";
import { Fault } from "../../parts/Notice";
import { OnScreen, Section } from "../../parts/Section";
import type { Product } from "./typed";

const Row = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 16px;
  margin-bottom: 12px;
  li {
    display: grid;
    gap: 4px;
    justify-items: start;
    max-width: 160px;
  }
  img,
  .pdf {
    width: 140px;
    height: 140px;
    object-fit: cover;
    border: 1px solid ${t.rule};
  }
  .pdf {
    display: grid;
    place-items: center;
    font: 500 ${t.s18} ${t.serif};
    background: ${t.sheet};
  }
`;

/** The label itself, as photographs or a PDF. */
export function LabelFiles({ product }: { product: Product }) {
  const account = useAccount();
  const may = useMay("manager");
  const at = `/api/accounts/${account.slug}/products/${product.id}/labels`;
  const binder = `/api/accounts/${account.slug}/proof/binder.pdf?product_id=${product.id}`;
  const add = useChange((path, file: File) => {
    const form = new FormData();
    form.append("file", file);
    return read(
      send.POST("/api/accounts/{account}/products/{product_id}/labels", {
        params: { path: { ...path, product_id: product.id } },
        body: form as unknown as { file: string },
        bodySerializer: (body: unknown) => body as FormData,
      }),
    );
  });
  const remove = useChange((path, label_id: number) =>
    read(
      api.DELETE("/api/accounts/{account}/products/{product_id}/labels/{label_id}", {
        params: { path: { ...path, product_id: product.id, label_id } },
      }),
    ),
  );
  const said = add.error instanceof ApiError ? add.error.fields[0] : undefined;
  return (
    <Section title="The label itself">
      {product.labels.length === 0 && (
        <Hint style={{ marginBottom: 8 }}>
          A photograph or a PDF of the label, for the day the one on the jug has washed off.
        </Hint>
      )}
      <Row>
        {product.labels.map((f: Schemas["LabelFileOut"]) => (
          <li key={f.id}>
            <a href={`${at}/${f.id}`} target="_blank" rel="noreferrer" aria-label={`Open ${f.name}`}>
              {f.kind === "application/pdf" ? (
                <span className="pdf">PDF</span>
              ) : (
                <img src={`${at}/${f.id}`} alt={`Label, ${f.name}`} />
              )}
            </a>
            <Hint>{f.name}</Hint>
            {may && (
              <Button look="quiet" onPress={() => remove.mutate(f.id)} aria-label={`Take away ${f.name}`}>
                Take away
              </Button>
            )}
          </li>
        ))}
      </Row>
      <OnScreen as="p" style={{ marginBottom: 12 }}>
        <a href={binder} target="_blank" rel="noreferrer">
          Print the card with its labels (PDF)
        </a>
      </OnScreen>
      {may && (
        <FileDrop
          accept="image/*,application/pdf"
          label="Photograph or PDF of the label"
          about="A photograph or a PDF: drop it here, or choose it."
          onTake={(file) => add.mutate(file, { onSuccess: () => say("The label is kept.") })}
        />
      )}
      {said ? (
        <Fault error={new Error(`${said.problem} ${said.remedy}`)} />
      ) : (
        <Fault error={add.error ?? remove.error} />
      )}
    </Section>
  );
}
