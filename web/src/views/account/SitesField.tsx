import { useAccount } from "../../app/session";
import { ManyField } from "../../parts/ManyField";

/** The sites that a member is limited to, in words. */
export const sitesText = (ids: number[], sites: { id: number; name: string }[]) =>
  ids.length
    ? sites
        .filter((s) => ids.includes(s.id))
        .map((s) => s.name)
        .join(", ")
    : "All sites";

interface Props {
  label?: string;
  hideLabel?: boolean;
  value: string[];
  onChange: (site_ids: string[]) => void;
}

/** Which sites a member sees; none ticked means all. */
export function SitesField({ label = "On", hideLabel, value, onChange }: Props) {
  const { sites } = useAccount();
  return (
    <ManyField
      label={label}
      hideLabel={hideLabel}
      name="site_ids"
      none="All sites"
      values={value}
      options={sites.map((s) => ({ key: `${s.id}`, text: s.name }))}
      onChange={onChange}
    />
  );
}
