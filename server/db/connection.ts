import { Sequelize } from 'sequelize';
import sqlite3 from 'sqlite3';

export type Connection = Sequelize;

/**
 * Opens one connection to a database file that is there: Sequelize opens the file again for each transaction, and where it was deleted
 * meanwhile, an empty one must not take its place. A reading connection cannot change it, whatever it is shown.
 */
export function connect(file: string, as: 'read' | 'write'): Connection {
  return new Sequelize({
    dialect: 'sqlite',
    storage: file,
    logging: false,
    dialectModule: { ...sqlite3, Database: ConfiguredDatabase },
    dialectOptions: { mode: as === 'read' ? sqlite3.OPEN_READONLY : sqlite3.OPEN_READWRITE },
    retry: { max: 1 },
  });
}

const closing = new Set<Promise<void>>();

/**
 * Closes a connection, and waits for all that are closing: Sequelize does not wait for the one of a transaction, whose last work
 * (moving the journal into the file) may take seconds. A thread that ends before takes the whole process with it.
 */
export async function closeConnection(connection: Connection): Promise<void> {
  await connection.close();
  await Promise.all(closing);
}

// Settings are per connection, and Sequelize opens connections by itself: so they are set as each one opens.
class ConfiguredDatabase extends sqlite3.Database {
  private unopened = false;

  constructor(file: string, mode: number, opened: (error: Error | null) => void) {
    super(file, mode, (error: Error | null) => {
      if (error) {
        this.unopened = true;
        return opened(error);
      }
      this.exec(
        'PRAGMA foreign_keys = ON; PRAGMA busy_timeout = 10000; PRAGMA synchronous = FULL; PRAGMA cache_size = -65536; PRAGMA temp_store = MEMORY',
        opened,
      );
    });
  }

  override close(done?: (error: Error | null) => void): void {
    // The engine waits for ever to close what was never opened.
    if (this.unopened) return done?.(null);
    const closed = new Promise<void>((resolve) =>
      super.close((error) => {
        resolve();
        done?.(error);
      }),
    );
    closing.add(closed);
    void closed.then(() => closing.delete(closed));
  }
}
