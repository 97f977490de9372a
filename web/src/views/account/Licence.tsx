import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Button } from "../../parts/Button";
import { Bar } from "../../parts/Section";
import { TextField } from "../../parts/TextField";

interface Props {
  of: Schemas["MemberOut"];
  pending: boolean;
  onKeep: (licence: string, then: () => void) => void;
}

/** Under which licence a member applies what needs one: told, and put right in its place. */
export function Licence({ of, pending, onKeep }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const close = () => setTyped(null);
  if (typed === null)
    return (
      <div>
        <Button look="quiet" onPress={() => setTyped(of.licence)}>
          {of.licence ? `Licence ${of.licence}` : `Add a licence number`}
        </Button>
      </div>
    );
  return (
    <form
      aria-label={`Licence of ${of.full_name}`}
      style={{ maxWidth: 260, marginTop: 8 }}
      onSubmit={(e) => {
        e.preventDefault();
        onKeep(typed, close);
      }}
    >
      <TextField label="Licence number" name={`licence-${of.id}`} value={typed} onChange={setTyped} />
      <Bar style={{ marginTop: 8 }}>
        <Button type="submit" isDisabled={pending}>
          Keep it
        </Button>
        <Button look="quiet" onPress={close}>
          Leave it
        </Button>
      </Bar>
    </form>
  );
}
