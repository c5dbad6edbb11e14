/** What may stand in a sum: figures with their thousands, signs, brackets. */
const PARTS = /\s*(\d[\d,]*(?:\.\d+)?|\.\d+|[-+*/()−×÷])/y;
/** Decimals a sum is worked out to; a column that takes fewer rounds it. */
const DECIMALS = 4;

type Token = number | string;

function tokensOf(text: string): Token[] | null {
  const tokens: Token[] = [];
  PARTS.lastIndex = 0;
  while (PARTS.lastIndex < text.length) {
    const from = PARTS.lastIndex;
    const found = PARTS.exec(text)?.[1];
    if (found === undefined) return text.slice(from).trim() === '' ? tokens : null;
    tokens.push(/[\d.]/.test(found) ? Number(found.replaceAll(',', '')) : (SIGNS[found] ?? found));
  }
  return tokens;
}

const SIGNS: Readonly<Record<string, string>> = { '−': '-', '×': '*', '÷': '/' };

/** Reads a sum from the left: products before sums, brackets first. Null where it is none. */
function worked(tokens: readonly Token[]): number | null {
  let at = 0;
  const factor = (): number => {
    const token = tokens[at++];
    if (typeof token === 'number') return token;
    if (token === '-') return -factor();
    if (token === '+') return factor();
    if (token !== '(') return NaN;
    const inside = sum();
    return tokens[at++] === ')' ? inside : NaN;
  };
  const product = (): number => {
    let value = factor();
    while (tokens[at] === '*' || tokens[at] === '/') value = tokens[at++] === '*' ? value * factor() : value / factor();
    return value;
  };
  const sum = (): number => {
    let value = product();
    while (tokens[at] === '+' || tokens[at] === '-') value = tokens[at++] === '+' ? value + product() : value - product();
    return value;
  };
  const value = sum();
  return at === tokens.length && Number.isFinite(value) ? value : null;
}

/**
 * What a simple sum such as `=12*3` or `=(1,200+80)/4` comes to, as text with at most `decimals` decimals, half away from zero; null
 * where the text is no sum.
 */
export function simpleSum(text: string, decimals = DECIMALS): string | null {
  const typed = text.trim();
  if (!typed.startsWith('=')) return null;
  const tokens = tokensOf(typed.slice(1));
  const value = tokens && tokens.length > 0 ? worked(tokens) : null;
  if (value === null || Math.abs(value) >= 1e15) return null;
  // A figure such as 1.005 is held as slightly less: what is beyond ten decimals is such a trace.
  const scaled = Math.abs(Number(value.toPrecision(15))) * 10 ** decimals;
  const rounded = Math.round(Number(scaled.toPrecision(15))) / 10 ** decimals;
  const shown = rounded.toFixed(decimals).replace(/\.?0+$/, decimals > 0 ? '' : '$&');
  return value < 0 && rounded !== 0 ? `-${shown}` : shown;
}

/** What is typed in a column of figures: a sum is worked out, to as many decimals as the column takes. */
export function summed(text: string, reads: (text: string) => boolean): string {
  for (const decimals of [DECIMALS, 2, 0]) {
    const value = simpleSum(text, decimals);
    if (value === null) return text;
    if (reads(value)) return value;
  }
  return simpleSum(text) ?? text;
}
