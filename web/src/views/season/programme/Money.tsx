import { useState } from "react";
import { useSetMoney, type Programme } from "../../../api/programme";
import { say } from "../../../app/toast";
import { Button } from "../../../parts/Button";
import { Form } from "../../../parts/Form";
import { Fault } from "../../../parts/Notice";
import { Bar, Section } from "../../../parts/Section";
import { TextField } from "../../../parts/TextField";

/** What may be spent in a year on what goes down. */
export function Money({ year, money }: { year: number; money: Programme["money"] }) {
  const set = useSetMoney();
  const [amount, setAmount] = useState(money.allowed);
  const keep = (next: string, undone?: string) =>
    set.mutate(
      { year, amount: next },
      {
        onSuccess: () =>
          say(
            next.trim() ? `The money of ${year} is kept.` : `${year} has no limit.`,
            undone === undefined ? undefined : () => keep(undone),
          ),
      },
    );
  return (
    <Section title="Money">
      <Form label="The money of the year" error={set.error} onSubmit={() => keep(amount, money.allowed)}>
        <TextField
          label={`Allowed in ${year}, ${money.currency}`}
          name="amount"
          value={amount}
          onChange={setAmount}
          input={{ inputMode: "decimal" }}
          hint="For products, by their prices on the shelf. Empty: no limit."
        />
        <Bar>
          <Button type="submit" isDisabled={set.isPending || amount === money.allowed}>
            Keep the money
          </Button>
        </Bar>
        <Fault error={set.error} besides={["amount"]} />
      </Form>
    </Section>
  );
}
