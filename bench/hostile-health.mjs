/** Asks a server for its health twenty times a second and tells how long each answer took. */
const [base] = process.argv.slice(2);
for (;;) {
  const began = performance.now();
  const status = await fetch(`${base}/api/health`).then(
    (r) => r.status,
    () => 0,
  );
  process.send({ ms: performance.now() - began, status });
  await new Promise((r) => setTimeout(r, 50));
}
