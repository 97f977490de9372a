import { PickField } from "../parts/PickField";
import { useAsked } from "./asked";
import { useAccount } from "./session";

/** The site in the address, the first one where it names none; and a field to pick another, where there are several. */
export function useSitePick() {
  const { sites } = useAccount();
  const [search, change] = useAsked();
  const asked = Number(search.get("site"));
  const site = sites.find((s) => s.id === asked) ?? sites[0]!;
  const field = sites.length > 1 && (
    <div style={{ maxWidth: 320, marginBottom: 14 }}>
      <PickField
        label="Site"
        name="site_id"
        value={`${site.id}`}
        options={sites.map((s) => ({ key: `${s.id}`, text: s.name }))}
        onChange={(key) => change({ site: key, area: undefined })}
      />
    </div>
  );
  return { site, field };
}
