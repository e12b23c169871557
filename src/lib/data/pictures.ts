/** Small pictures of setups, kept from one visit to the next. They can always be drawn again. */
import type { FocalisDatabase, PictureRow } from './database';

/** At most so many; beyond, any but the newest go: they are drawn again when they are wanted. */
const mostKept = 400;

export async function readPicture(database: FocalisDatabase, key: string): Promise<PictureRow | undefined> {
  return database.pictures.get(key);
}

export async function keepPicture(database: FocalisDatabase, row: PictureRow): Promise<void> {
  await database.transaction('rw', database.pictures, async () => {
    await database.pictures.put(row);
    const count = await database.pictures.count();
    if (count > mostKept) {
      const old = await database.pictures
        .where('key')
        .notEqual(row.key)
        .limit(count - mostKept)
        .primaryKeys();
      await database.pictures.bulkDelete(old);
    }
  });
}
