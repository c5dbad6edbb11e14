// Before all tests: the server and its command line as they run, so that tests that start them do not wait for them to be compiled each time.
import { execFileSync } from 'node:child_process';

export default function buildServer() {
  execFileSync(process.execPath, ['scripts/build-server.mjs'], { stdio: 'inherit' });
}
