/** The program and system out of what a browser says of itself, with the address: `Chrome 150 on Linux, 127.0.0.1`. */
export function programOf(from: string): string {
  const [, program, version] = /(Firefox|Edg|Chrome|Safari)\/(\d+)/.exec(from) ?? [];
  const system = /Windows|Android|iPhone|iPad|Macintosh|Linux/.exec(from)?.[0];
  if (!program) return from;
  return `${program === 'Edg' ? 'Edge' : program} ${version}${system ? ` on ${system}` : ''}, ${from.split(', ').at(-1)}`;
}
