/** How often a property of the server is tried: `npm run test:deep` tries ten times as many made-up books. */
export function runs(usual: number): number {
  return process.env.LEDRIN_DEEP_TESTS ? usual * 10 : usual;
}
