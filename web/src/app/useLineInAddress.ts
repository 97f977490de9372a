import { useSearchParams } from "react-router";

const NAME = "line";

/** What the reckon line asks, kept in the address so that it can be gone back to and sent on; null while it is closed. */
export function useLineInAddress(): [string | null, (text: string | null) => void] {
  const [params, setParams] = useSearchParams();
  const asked = params.get(NAME);
  const ask = (text: string | null) =>
    setParams(
      (was) => {
        if (text === null) was.delete(NAME);
        else was.set(NAME, text);
        return was;
      },
      { replace: asked !== null },
    );
  return [asked, ask];
}
