import type { Schemas } from "../../api/client";
import { PickField } from "../../parts/PickField";

interface Props {
  label: string;
  name: string;
  lots: Schemas["LotOut"][];
  value: string;
  onChange: (lot: string) => void;
}

/** The lot that a product was taken from, where it has any; `value` is its number in the shelf, empty where nobody said. */
export function LotPick({ label, name, lots, value, onChange }: Props) {
  if (!lots.length) return null;
  return (
    <PickField
      label={label}
      name={name}
      value={value}
      options={[
        { key: "", text: "Not noted" },
        ...lots.map((x) => ({
          key: `${x.id}`,
          text: x.number,
          note: `${x.left.text} left${x.expired ? ", past its day" : ""}`,
        })),
      ]}
      onChange={onChange}
    />
  );
}
