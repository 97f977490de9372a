import { useRouteError } from "react-router";
import styled from "styled-components";

const Box = styled.main`
  max-width: 60ch;
  margin: 12vh auto;
  padding: 0 24px;
  display: grid;
  gap: 16px;
  justify-items: start;
`;

/** An address that leads nowhere. */
export function NothingHere() {
  return (
    <Box>
      <h1>There is nothing at this address.</h1>
      <p>It may have been moved, put away, or belong to another account.</p>
      <p>
        <a href="/">Back to today</a>
      </p>
    </Box>
  );
}

/** What is shown when a view breaks. Drafts are on the device and stay there. */
export function ErrorPage() {
  const error = useRouteError();
  const said = error instanceof Error ? error.message : "";
  return (
    <Box>
      <h1>This view broke.</h1>
      <p>What you typed is kept on this device, and nothing was half-saved. Loading it again often helps.</p>
      {said && <p>The fault was: {said}</p>}
      <p>
        <a href="/">Back to today</a>
      </p>
    </Box>
  );
}
