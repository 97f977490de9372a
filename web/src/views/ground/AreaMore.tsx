import type { Schemas } from "../../api/client";
import { DateField } from "../../parts/DateField";
import { PickField } from "../../parts/PickField";
import { Fields } from "../../parts/Section";
import { Switch } from "../../parts/Switch";
import { TextField } from "../../parts/TextField";
import type { TypedArea } from "./typedArea";

interface Props {
  value: TypedArea;
  options: Schemas["GroundOptionsOut"];
  change: (part: Partial<TypedArea>) => void;
}

/** What is seldom needed of an area: cultivar, soil, shade, slope, zone, sowing, a note. */
export function AreaMore({ value, options, change }: Props) {
  const nothing = { key: "", text: "Not noted" };
  return (
    <>
      <Fields $columns={4}>
        <TextField
          label="Cultivar or blend"
          name="cultivar"
          value={value.cultivar}
          onChange={(cultivar) => change({ cultivar })}
        />
        <PickField
          label="Soil"
          name="texture"
          value={value.texture}
          options={[nothing, ...options.textures]}
          onChange={(texture) => change({ texture })}
        />
        <PickField
          label="Shade"
          name="shade"
          value={value.shade}
          options={[nothing, ...options.shades]}
          onChange={(shade) => change({ shade })}
        />
        <TextField
          label="Slope, %"
          name="slope"
          value={value.slope}
          onChange={(slope) => change({ slope })}
          input={{ inputMode: "decimal" }}
        />
        <TextField
          label="Irrigation zone"
          name="zone"
          value={value.zone}
          onChange={(zone) => change({ zone })}
        />
        <DateField
          label="Sown on"
          name="sown_on"
          value={value.sown_on}
          onChange={(sown_on) => change({ sown_on })}
        />
        <DateField
          label="To be overseeded on"
          name="overseed_on"
          value={value.overseed_on}
          onChange={(overseed_on) => change({ overseed_on })}
        />
        <div style={{ paddingTop: 20 }}>
          <Switch value={value.tested_p} onChange={(tested_p) => change({ tested_p })}>
            A soil test asks for phosphorus
          </Switch>
        </div>
      </Fields>
      <div style={{ marginTop: 16 }}>
        <TextField
          label="Note"
          name="note"
          lines
          value={value.note}
          onChange={(note) => change({ note })}
          hint="What one must know out there."
        />
      </div>
    </>
  );
}
