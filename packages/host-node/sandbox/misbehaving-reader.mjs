/** Stands in for the reading process in tests: the file's name says what it does to its reader. */
const held = [];
process.on('message', ({ args: [{ name }] }) => {
  if (name === 'endless') for (;;);
  if (name === 'greedy') {
    for (let n = 0; n < 40; n++) held.push(Buffer.alloc(10_000_000, 1));
    return;
  }
  if (name === 'deadly') process.exit(3);
  if (name === 'refused') process.send({ refused: '"refused" is no picture.' });
  else process.send({ value: process.pid });
});
process.on('disconnect', () => process.exit(0));
process.send('ready');
