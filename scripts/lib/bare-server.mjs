// The least a server can do for one station, to measure ours against: one SELECT to read it, one
// UPDATE to write it, no checks, no revisions.
import { createServer } from 'node:http';
import pg from 'pg';

const pool = new pg.Pool({ connectionString: process.env.DATABASE_URL, max: 10 });

const server = createServer((request, response) => {
  const id = request.url.slice(1);
  const answer = (row) => {
    response.setHeader('Content-Type', 'application/json');
    response.end(JSON.stringify(row));
  };
  if (request.method === 'GET') {
    void pool
      .query('select * from stations where id = $1', [id])
      .then(({ rows }) => answer(rows[0]));
    return;
  }
  const parts = [];
  request.on('data', (part) => parts.push(part));
  request.on('end', () => {
    const { document } = JSON.parse(Buffer.concat(parts).toString('utf8'));
    void pool
      .query('update stations set document = $2 where id = $1 returning *', [
        id,
        JSON.stringify(document),
      ])
      .then(({ rows }) => answer(rows[0]));
  });
});
server.listen(0, '127.0.0.1', () => process.send({ port: server.address().port }));
process.on('disconnect', () => process.exit(0));
