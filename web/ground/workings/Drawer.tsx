import { lazy, Suspense, useState } from 'react';
import { useSelector } from 'react-redux';
import type { RootState } from '../api/store';

const Workings = lazy(async () => ({ default: (await import('./Workings')).Workings }));

/** Room for the workings of a figure: what shows them is fetched when one is first opened, and stays from then on. */
export function Drawer() {
  const open = useSelector((state: RootState) => state.workings.trail.length > 0);
  const [opened, setOpened] = useState(false);
  if (open && !opened) setOpened(true);
  return <Suspense>{opened && <Workings />}</Suspense>;
}
