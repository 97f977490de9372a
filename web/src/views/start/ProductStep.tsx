import { read, send, type Schemas } from "../../api/client";
import { useChange, useGrade, useLabelText } from "../../api/hooks";
import { useDraft } from "../../app/draft";
import { useAccount } from "../../app/session";
import { useThereAndBack } from "../../app/useBack";
import { useSettled } from "../../app/useSettled";
import { Button, ButtonLink } from "../../parts/Button";
import { Form } from "../../parts/Form";
import { Fault, Notice } from "../../parts/Notice";
import { PickField } from "../../parts/PickField";
import { Bar, Fields } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { LabelText } from "../shelf/LabelText";
import { blankRate, toProductIn, typedCard, typedProduct, type TypedProduct } from "../shelf/typed";

/** What is typed over what was read; null where it stands as it was read. */
interface Own {
  text: string;
  without: number[];
  name: string | null;
  kind: string | null;
  formulation: string | null;
  phrase: string | null;
}
const nothing: Own = { text: "", without: [], name: null, kind: null, formulation: null, phrase: null };

/** The card: what was read in the label's text, and over it what was typed. */
function useCard(own: Own) {
  const account = useAccount();
  const us = account.units === "us";
  const { data } = useLabelText(useSettled(own.text, 300), own.without);
  const found = data && own.text.trim() ? typedCard(data.card, us) : {};
  const grade = useGrade(useSettled(own.name ?? "", 200)).data;
  const [first = blankRate, ...others] = found.rates ?? [];
  const stated = grade?.contents.map((c) => ({ ...c, slow: c.slow ?? "" }));
  const card: TypedProduct = {
    ...typedProduct(undefined, us),
    ...found,
    contents: found.contents ?? (stated?.length ? stated : []),
    name: own.name ?? found.name ?? "",
    kind: own.kind ?? found.kind ?? "",
    formulation: own.formulation ?? found.formulation ?? "",
    rates: [{ ...first, phrase: own.phrase ?? first.phrase }, ...others],
  };
  return { card, read: data, grade };
}

/** The first product: its label pasted, or the four things that must be known. */
export function ProductStep({ options }: { options: Schemas["ShelfOptionsOut"] }) {
  const account = useAccount();
  const there = useThereAndBack();
  const { value: own, change, clear } = useDraft(`${account.slug}/start/product`, nothing);
  const { card, read: pasted, grade } = useCard(own);
  const add = useChange((path, body: Schemas["ProductIn"]) =>
    read(send.POST("/api/accounts/{account}/products", { params: { path }, body })),
  );
  const submit = () => add.mutate(toProductIn(card), { onSuccess: () => clear() });
  return (
    <Form label="A product" error={add.error} onSubmit={submit}>
      <div style={{ marginTop: 12 }}>
        <LabelText
          text={own.text}
          onText={(text) => change({ text, without: [] })}
          read={pasted}
          without={own.without}
          onWithout={(without) => change({ without })}
        />
      </div>
      <Fields $columns={4} style={{ marginTop: 16 }}>
        <TextField
          needed
          label="Name"
          name="name"
          value={card.name}
          onChange={(name) => change({ name })}
          hint={
            grade?.contents.length && !pasted?.card.contents?.length
              ? `In its name: ${grade.text}`
              : undefined
          }
        />
        <PickField
          needed
          label="Type"
          name="kind"
          value={card.kind || null}
          options={options.kinds}
          onChange={(kind) => change({ kind })}
        />
        <PickField
          needed
          label="Formulation"
          name="formulation"
          value={card.formulation || null}
          options={options.formulations}
          onChange={(formulation) => change({ formulation })}
        />
        <TextField
          needed
          label="Rate, as printed"
          name="rates.0.phrase"
          value={card.rates[0]!.phrase}
          onChange={(phrase) => change({ phrase })}
          onPick={(phrase) => change({ phrase })}
          input={{ placeholder: account.units === "us" ? "3 lb per 1,000 sq ft" : "30 g per m²" }}
        />
      </Fields>
      <Fault error={add.error} besides={["name", "kind", "formulation", "rates.0.phrase"]} />
      <Notice tone="note" word="The label comes first">
        Check each line against the label before the first dose; what it says is law for pesticides.
      </Notice>
      <Bar>
        <Button look="main" type="submit" isDisabled={add.isPending}>
          Put it on the shelf
        </Button>
        <ButtonLink look="quiet" to={there("shelf/new")}>
          All fields of the card
        </ButtonLink>
      </Bar>
    </Form>
  );
}
