import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type TestServer, startTestServer } from '../testing/test-server.ts';
import { Statement, inTransaction, withConnection } from './statement.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
  await server.database.raw('CREATE TABLE note (id int PRIMARY KEY, words text)');
});
afterAll(() => server.close());

const notes = async (): Promise<string[]> => server.database('note').orderBy('id').pluck('words');
const insert = (id: number, words: string) => {
  const statement = new Statement();
  statement.part(
    'added',
    `INSERT INTO note VALUES (${statement.value(id)}::int, ${statement.value(words)}) RETURNING id`,
  );
  return statement;
};

describe('a statement of several parts', () => {
  it('holds as a whole, and gives what it selects', async () => {
    const statement = insert(1, "it's; DROP TABLE note");
    statement.part('second', `INSERT INTO note SELECT id + 1, ${statement.value('two')} FROM added`);
    const rows = await withConnection(server.database, (connection) =>
      statement.run(connection, 'SELECT id FROM added'),
    );
    expect(rows).toEqual([{ id: 1 }]);
    expect(await notes()).toEqual(["it's; DROP TABLE note", 'two']);
  });

  it('leaves nothing where one of its parts is refused', async () => {
    const statement = insert(3, 'three');
    statement.part('again', 'INSERT INTO note SELECT 1, words FROM note WHERE id = 2');
    await expect(
      withConnection(server.database, (connection) => statement.run(connection, 'SELECT 1')),
    ).rejects.toMatchObject({ code: '23505' });
    expect(await notes()).toHaveLength(2);
  });
});

describe('a transaction', () => {
  it('keeps all or, where it gives null or fails, nothing; the connection can be used again', async () => {
    const make = (id: number, result: () => number | null) =>
      withConnection(server.database, (connection) =>
        inTransaction(connection, async () => {
          await insert(id, `note ${id}`).run(connection, 'SELECT 1');
          return result();
        }),
      );
    expect(await make(10, () => null)).toBeNull();
    await expect(
      make(11, () => {
        throw new Error('changed my mind');
      }),
    ).rejects.toThrow('changed my mind');
    expect(await make(12, () => 12)).toBe(12);
    expect((await notes()).slice(2)).toEqual(['note 12']);
    for (let n = 20; n < 40; n++) await make(n, () => null);
    expect((await notes()).slice(2)).toEqual(['note 12']);
  });
});
