import { useRef, type PointerEvent } from 'react';

/** The field a signature is written in, whatever its size on the glass. */
const WIDTH = 1000;
const HEIGHT = 400;
/** The longest a signature may be as text; a hand does not come near it. */
const LONGEST = 19_000;

/** Glass to sign on, with a finger or a pen. Strokes are points `x,y` apart by spaces, apart by `;`. */
export function SignPad({ strokes, onStrokes }: { strokes: string; onStrokes: (strokes: string) => void }) {
  const current = useRef('');
  const point = ({ clientX, clientY, currentTarget }: PointerEvent<SVGSVGElement>) => {
    const { left, top, width, height } = currentTarget.getBoundingClientRect();
    const at = (value: number, of: number, most: number) => Math.round(Math.min(Math.max((value / of) * most, 0), most - 1));
    return `${at(clientX - left, width, WIDTH)},${at(clientY - top, height, HEIGHT)}`;
  };
  const begin = (event: PointerEvent<SVGSVGElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    current.current = strokes === '' ? point(event) : `${strokes};${point(event)}`;
    onStrokes(current.current);
  };
  const draw = (event: PointerEvent<SVGSVGElement>) => {
    if (current.current === '' || current.current.length > LONGEST) return;
    current.current = `${current.current} ${point(event)}`;
    onStrokes(current.current);
  };
  const end = () => {
    current.current = '';
  };
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="sign-pad"
      role="img"
      aria-label="Sign here with a finger"
      onPointerDown={begin}
      onPointerMove={draw}
      onPointerUp={end}
      onPointerCancel={end}
    >
      <line x1="60" y1="310" x2="940" y2="310" stroke="var(--rule)" strokeWidth="2" />
      {strokes !== '' &&
        strokes
          .split(';')
          .map((it, i) => (
            <polyline key={i} points={it} fill="none" stroke="currentColor" strokeWidth={6} strokeLinecap="round" />
          ))}
    </svg>
  );
}
