import { isRouteErrorResponse, useRouteError } from "react-router";
import styled from "styled-components";

const Box = styled.main`
  max-width: 60ch;
  margin: 12vh auto;
  padding: 0 24px;
  display: grid;
  gap: 16px;
  justify-items: start;
`;

/** What is shown when a view breaks, or an address leads nowhere. Drafts are on the device and stay there. */
export function ErrorPage() {
  const error = useRouteError();
  const lost = isRouteErrorResponse(error) && error.status === 404;
  const said = error instanceof Error ? error.message : "";
  return (
    <Box>
      <h1>{lost ? "There is nothing at this address." : "This view broke."}</h1>
      <p>
        {lost
          ? "It may have been moved, or belong to another club."
          : "What you typed is kept on this device, and nothing was half-saved. Loading it again often helps."}
      </p>
      {said && <p>The fault was: {said}</p>}
      <p>
        <a href="/">Back to today</a>
      </p>
    </Box>
  );
}

export function NotHere(): never {
  throw new Response("", { status: 404 });
}
