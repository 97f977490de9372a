import { useEffect, useRef, useState } from "react";
import { useSearchParams } from "react-router";
import styled from "styled-components";
import { useBook } from "../../api/hooks";
import { useAccount, useMay } from "../../app/session";
import { useSettled } from "../../app/useSettled";
import { Button, ButtonLink } from "../../parts/Button";
import { Page } from "../../parts/Page";
import { Bar } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { box } from "../../parts/TextField";
import { Waiting } from "../../parts/Waiting";
import { BookTable } from "./BookTable";
import { bookParts } from "./bookParts";

const Search = styled.input`
  ${box}
  max-width: 380px;
  margin-bottom: 16px;
`;
const Out = styled.a`
  white-space: nowrap;
  padding: 9px 0;
`;

/** The book: what was done, newest first, and the way out as CSV. */
export function Book() {
  const account = useAccount();
  const manager = useMay("manager");
  const [search, setSearch] = useSearchParams();
  const [typed, setTyped] = useState(search.get("words") ?? "");
  const words = useSettled(typed, 150);
  const page = Number(search.get("page") ?? 1);
  const book = useBook(words, page);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (!search.has("search")) return;
    field.current?.focus();
    setSearch({}, { replace: true });
  }, [search, setSearch]);
  const csv = `/api/accounts/${account.slug}/book/book.csv?${new URLSearchParams(words ? { words } : {}).toString()}`;
  return (
    <Page
      sentence={book.data?.sentence ?? "The book."}
      act={
        <>
          {words && !!book.data?.count && (
            <Out href={csv} download>
              Export these as CSV
            </Out>
          )}
          <ButtonLink to="files">Import and export</ButtonLink>
        </>
      }
    >
      <SubRule label="Parts of the book" parts={bookParts(account.slug, manager)} />
      <Search
        ref={field}
        type="search"
        aria-label="Search the book"
        placeholder="Area, product, active, person …"
        value={typed}
        onChange={(e) => {
          setTyped(e.target.value);
          if (page !== 1) setSearch({}, { replace: true });
        }}
      />
      <Waiting of={book}>
        {(data) => (
          <>
            {data.applications.length > 0 && <BookTable applications={data.applications} />}
            {data.pages > 1 && (
              <Bar>
                <Button isDisabled={data.page <= 1} onPress={() => setSearch({ page: `${data.page - 1}` })}>
                  Newer
                </Button>
                <span>{`page ${data.page} of ${data.pages}`}</span>
                <Button
                  isDisabled={data.page >= data.pages}
                  onPress={() => setSearch({ page: `${data.page + 1}` })}
                >
                  Older
                </Button>
              </Bar>
            )}
          </>
        )}
      </Waiting>
    </Page>
  );
}
