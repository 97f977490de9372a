import { Outlet } from "react-router";
import { useAreas, useProducts } from "../../api/hooks";
import { useAccount, useMay } from "../../app/session";
import { ButtonLink } from "../../parts/Button";
import { Empty } from "../../parts/Empty";
import { Page } from "../../parts/Page";
import { SubRule } from "../../parts/SubRule";
import { reckonParts } from "./state";

/** Reckoning takes an area and a product; until the account has both, the way to the one that is missing. */
export function Ready() {
  const account = useAccount();
  const may = useMay("manager");
  const areas = useAreas();
  const products = useProducts();
  const missing =
    areas.data?.areas.length === 0
      ? { to: "ground/new", act: "Add an area" }
      : products.data?.length === 0
        ? { to: "shelf/new", act: "Add a product" }
        : null;
  if (!missing) return <Outlet />;
  return (
    <Page sentence="There is nothing to reckon with yet.">
      <SubRule label="Parts of Reckon" parts={reckonParts(account.slug)} />
      <Empty
        act={
          may && (
            <ButtonLink look="main" to={`/a/${account.slug}/${missing.to}`}>
              {missing.act}
            </ButtonLink>
          )
        }
      >
        A dose needs a product’s rate and an area’s size. Put one of each in, and the sum is here. Measuring
        works without either.
      </Empty>
    </Page>
  );
}
