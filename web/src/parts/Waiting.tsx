import type { UseQueryResult } from "@tanstack/react-query";
import type { ReactNode } from "react";
import styled, { keyframes } from "styled-components";
import { t } from "../app/theme";
import { Button } from "./Button";
import { Notice } from "./Notice";

const slide = keyframes`from { background-position: 0 0 } to { background-position: 40px 0 }`;

/** In the page's margin, where no page stands round it yet. */
const Place = styled.div`
  &:not(main *) {
    max-width: 1280px;
    margin: 0 auto;
    padding: 28px 32px;
    ${t.phone} {
      padding: 18px 16px;
    }
  }
`;
const Ticks = styled.div`
  height: 14px;
  width: 200px;
  margin: 24px 0 8px;
  border-bottom: 1px solid ${t.rule};
  background: repeating-linear-gradient(90deg, ${t.rule} 0 1px, transparent 1px 8px);
  animation: ${slide} 900ms linear infinite;
`;

/** The state of something asked for: waiting, failed with a way to try again, or there. */
export function Waiting<T>({ of, children }: { of: UseQueryResult<T>; children: (data: T) => ReactNode }) {
  if (of.data !== undefined) return <>{children(of.data)}</>;
  if (of.error) {
    return (
      <Notice tone="stop" word="Not read">
        {of.error.message} <Button onPress={() => void of.refetch()}>Try again</Button>
      </Notice>
    );
  }
  return (
    <Place role="status">
      <Ticks />
      Reading …
    </Place>
  );
}
