import { LedrinError } from '../../core/errors/ledrinError';
import { BookRefused } from '../../core/errors/bookFaults';
import { TASKS, type TaskName, type TaskReply } from './tasks';

/** Carries out one task in a worker thread. */
export async function carryOut({ name, args }: { name: TaskName; args: unknown[] }): Promise<TaskReply> {
  const task = TASKS[name] as (...args: unknown[]) => Promise<unknown>;
  try {
    return { done: await task(...args) };
  } catch (error) {
    if (error instanceof BookRefused) return { bookRefused: { faults: error.faults, more: error.more } };
    if (error instanceof LedrinError) return { refused: { code: error.code, message: error.message, faults: error.faults } };
    throw error;
  }
}
// The pool takes what a worker's module exports by default.
// eslint-disable-next-line no-restricted-syntax
export default carryOut;
