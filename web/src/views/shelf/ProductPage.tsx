import { useParams } from "react-router";
import { useProductOptions, useProducts } from "../../api/hooks";
import { NothingHere } from "../../app/ErrorPage";
import { Waiting } from "../../parts/Waiting";
import { ProductForm } from "./ProductForm";

/** Add a product, or change its label card. */
export function ProductPage() {
  const { id } = useParams();
  const products = useProducts();
  const options = useProductOptions();
  return (
    <Waiting of={options}>
      {(offered) =>
        id === "new" ? (
          <ProductForm key="new" options={offered} />
        ) : (
          <Waiting of={products}>
            {(list) => {
              const product = list.find((p) => p.id === Number(id));
              return product ? (
                <ProductForm key={product.id} product={product} options={offered} />
              ) : (
                <NothingHere />
              );
            }}
          </Waiting>
        )
      }
    </Waiting>
  );
}
