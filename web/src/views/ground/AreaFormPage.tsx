import { useParams } from "react-router";
import { useArea, useGroundOptions } from "../../api/hooks";
import { Waiting } from "../../parts/Waiting";
import { AreaForm } from "./AreaForm";

/** Add an area, or change one. */
export function AreaFormPage() {
  const { id } = useParams();
  const options = useGroundOptions();
  const area = useArea(Number(id));
  return (
    <Waiting of={options}>
      {(offered) =>
        id === undefined ? (
          <AreaForm key="new" options={offered} />
        ) : (
          <Waiting of={area}>
            {(whole) => <AreaForm key={whole.area.id} area={whole.area} options={offered} />}
          </Waiting>
        )
      }
    </Waiting>
  );
}
