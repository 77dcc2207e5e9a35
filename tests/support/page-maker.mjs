import { createServer } from 'node:http';

/** Stands for a process that makes pages: says what it was asked, and ends when it is asked to. */
const server = createServer((request, response) => {
  if (request.url === '/die') process.exit(1);
  if (request.headers['x-vinkel-aside'] !== process.env.VINKEL_ASIDE) return response.writeHead(403).end();
  response.writeHead(418, { 'x-made': 'aside', 'set-cookie': ['a=1', 'b=2'] });
  response.end(`${process.argv[2]} ${request.method} ${request.url} ${request.headers.cookie ?? ''}`);
});
server.listen(0, '127.0.0.1', () => process.send({ port: server.address().port }));
process.once('disconnect', () => process.exit(0));
