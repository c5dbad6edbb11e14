// A worker thread of a server that runs from its sources: reads TypeScript, then does what the built one does.
import { register } from 'tsx/esm/api';

register();
const { carryOut } = await import('./worker.ts');
export default carryOut;
