import { useState } from 'react';
import { toast } from '../kit/toast';
import { actFailed } from '../kit/actsByKey';
import { faultOf, type ShownFault } from './faults';

/** Something asked of the server: what refused it is shown, and what was typed stays. */
export function useAttempt() {
  const [refused, setRefused] = useState<ShownFault | null>(null);
  /** True where it was done; `said` is shown then. */
  const attempt = async (work: () => Promise<unknown>, said?: string): Promise<boolean> => {
    try {
      await work();
      setRefused(null);
      if (said) toast(said);
      return true;
    } catch (error) {
      setRefused(faultOf(error));
      actFailed();
      return false;
    }
  };
  return { refused, setRefused, attempt };
}
