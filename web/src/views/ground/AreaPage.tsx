import { useParams } from "react-router";
import { useAreas, useGrasses } from "../../api/hooks";
import { NothingHere } from "../../app/ErrorPage";
import { Waiting } from "../../parts/Waiting";
import { AreaForm } from "./AreaForm";

/** Add an area, or change one. */
export function AreaPage() {
  const { id } = useParams();
  const areas = useAreas();
  const grasses = useGrasses();
  return (
    <Waiting of={grasses}>
      {(names) =>
        id === "new" ? (
          <AreaForm key="new" grasses={names} />
        ) : (
          <Waiting of={areas}>
            {({ areas: list }) => {
              const area = list.find((a) => a.id === Number(id));
              return area ? <AreaForm key={area.id} area={area} grasses={names} /> : <NothingHere />;
            }}
          </Waiting>
        )
      }
    </Waiting>
  );
}
