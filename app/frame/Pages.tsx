import Pagination from '@mui/material/Pagination';
import PaginationItem from '@mui/material/PaginationItem';
import { Link, useSearchParams } from 'react-router';

/**
 * Where a page of a list begins and how long it is: by `?page=` in the address, the first where
 * that says nothing.
 */
export function pageAsked(
  query: URLSearchParams,
  most: number,
): { page: number; skip: number; most: number } {
  const asked = Number(query.get('page') ?? 1);
  const page = Number.isInteger(asked) && asked >= 1 && asked <= 10_000 ? asked : 1;
  return { page, skip: (page - 1) * most, most };
}

/** The way to the other pages of a list; nothing where there is but one. */
export function Pages({
  page,
  most,
  all,
  of,
}: {
  page: number;
  most: number;
  all: number;
  of: string;
}) {
  const [query] = useSearchParams();
  const count = Math.ceil(all / most);
  if (count <= 1) return null;
  const to = (n: number | null) => {
    const next = new URLSearchParams(query);
    if (n === null || n === 1) next.delete('page');
    else next.set('page', String(n));
    return `?${next}`;
  };
  return (
    <Pagination
      page={page}
      count={count}
      size="large"
      shape="rounded"
      sx={{
        mt: 2.5,
        '& .MuiPaginationItem-root': { minWidth: 48, height: 48, fontSize: '1.05rem' },
      }}
      getItemAriaLabel={(type, n) =>
        type === 'page' ? `Page ${n} of the ${of}` : `The ${type} page of the ${of}`
      }
      renderItem={(item) => <PaginationItem component={Link} to={to(item.page)} {...item} />}
    />
  );
}
