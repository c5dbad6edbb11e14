import type { Journal } from '../../core/ledger/journal';
import { nextId, type Sql } from '../db/sql';
import type { Actor } from '../acts/audit';
import { PostingTable } from './models';
import { savePostings, type PostingToSave } from './savePosting';

/** Postings gathered to be posted in one go, each with its id at once. */
export class PostingBatch {
  private readonly gathered: { id: number; posting: PostingToSave; journals: Journal[] }[] = [];

  private constructor(
    private readonly sql: Sql,
    private readonly actor: Actor,
    private next: number,
  ) {}

  /** Nothing else may be posted in the transaction until it is saved. */
  static async open(sql: Sql, actor: Actor): Promise<PostingBatch> {
    return new PostingBatch(sql, actor, await nextId(sql, PostingTable));
  }

  add(posting: PostingToSave, ...journals: readonly Journal[]): number {
    this.gathered.push({ id: this.next, posting, journals: [...journals] });
    return this.next++;
  }

  save(): Promise<void> {
    return savePostings(this.sql, this.actor, this.gathered);
  }
}
