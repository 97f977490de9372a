import type { Schemas } from "../../../api/client";
import { useLooks } from "../../../api/scouting";
import { PickField, type Option } from "../../../parts/PickField";

export interface Shot {
  spot: string;
  light: string;
  mown: string;
}

interface Props {
  value: Shot;
  onChange: (part: Partial<Shot>) => void;
  spots: Schemas["SpotOut"][];
  /** What can be picked besides the spots that are there. */
  more?: Option[];
}

/** What makes pictures comparable: the spot, the light, and whether it was just mown. */
export function ShotFields({ value, onChange, spots, more = [] }: Props) {
  const looks = useLooks();
  return (
    <>
      <PickField
        label="Of which spot"
        name="spot_id"
        value={value.spot}
        options={[
          { key: "", text: "No fixed spot" },
          ...spots.map((s) => ({ key: String(s.id), text: s.name })),
          ...more,
        ]}
        onChange={(spot) => onChange({ spot })}
      />
      <PickField
        label="Light"
        name="light"
        value={value.light}
        options={[{ key: "", text: "Not noted" }, ...(looks.data?.light ?? [])]}
        onChange={(light) => onChange({ light })}
      />
      <PickField
        label="Mowing"
        name="mown"
        value={value.mown}
        options={[{ key: "", text: "Not noted" }, ...(looks.data?.mown ?? [])]}
        onChange={(mown) => onChange({ mown })}
      />
    </>
  );
}
