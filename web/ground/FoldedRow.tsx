import { useState } from 'react';
import { useLocation } from 'react-router';
import { LinkRow, type RowLink } from './places';

interface FoldedRowProps {
  label: string;
  /** What stands behind “More”. */
  title: string;
  links: readonly (RowLink & { aside: boolean })[];
}

/** A row of links of which some stand behind “More”, but for the one we are at. */
export function FoldedRow({ label, title, links }: FoldedRowProps) {
  const { pathname } = useLocation();
  const [more, setMore] = useState(false);
  const isHere = (to: string) => pathname === to || pathname.startsWith(`${to}/`);
  const shown = links.filter((it) => more || !it.aside || isHere(it.to));
  return (
    <LinkRow label={label} links={shown}>
      {links.some((it) => it.aside) && (
        <button type="button" aria-expanded={more} title={title} onClick={() => setMore(!more)}>
          {more ? 'Less' : 'More'}
        </button>
      )}
    </LinkRow>
  );
}
