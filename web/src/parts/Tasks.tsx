import { Link } from "react-router";
import styled from "styled-components";
import type { Schemas } from "../api/client";
import { useSetTask } from "../api/passes";
import { useAccount, useMay } from "../app/session";
import { t } from "../app/theme";
import { Fault } from "./Notice";
import { Switch } from "./Switch";

const Where = styled.span`
  font-size: ${t.s13};
  color: ${t.soft};
`;

/** What is to be seen to on the ground, ticked when it is done. `where` names the area of each. */
export function Tasks({ tasks, where }: { tasks: Schemas["TaskOut"][]; where?: boolean }) {
  const account = useAccount();
  const may = useMay("applicator");
  const set = useSetTask();
  return (
    <div>
      <Fault error={set.error} />
      {tasks.map((task) => (
        <Switch
          key={task.id}
          large
          value={task.done_at !== null}
          disabled={!may}
          onChange={(done) => set.mutate({ id: task.id, act: done ? "done" : "open" })}
        >
          {where && (
            <>
              <Link to={`/a/${account.slug}/ground/${task.area_id}/water`}>{task.area}</Link>
              {": "}
            </>
          )}
          {task.text} <Where>{task.done_at && `Done by ${task.done_by}.`}</Where>
        </Switch>
      ))}
    </div>
  );
}
