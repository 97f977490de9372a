import { useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { useAccount } from "../../app/session";
import { say } from "../../app/toast";
import { jobToSearch } from "./state";

/** Opens Reckon with a job of before, and says what of it is not as it was. */
export function useOpenJob() {
  const account = useAccount();
  const navigate = useNavigate();
  return ({ job, notes }: Schemas["AgainOut"]) => {
    if (notes.length) say(notes.join(" "));
    void navigate(`/a/${account.slug}/reckon?${jobToSearch(job)}`);
  };
}
