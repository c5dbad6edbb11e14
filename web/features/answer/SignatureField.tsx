import { useRef } from 'react';

const WIDTH = 400;
const HEIGHT = 120;

/** A field to draw a signature in, with mouse, pen or finger. Gives the strokes as a path. */
export function SignatureField({ value, onValue }: { value: string; onValue: (path: string) => void }) {
  const drawing = useRef(false);
  // Points come faster than the screen is drawn: each is added to what is newest, not to what was drawn last.
  const path = useRef(value);
  const add = (step: string) => onValue((path.current += step));
  const pointOf = (event: React.PointerEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const x = Math.round(((event.clientX - box.left) / box.width) * WIDTH);
    const y = Math.round(((event.clientY - box.top) / box.height) * HEIGHT);
    return `${Math.max(0, Math.min(WIDTH, x))} ${Math.max(0, Math.min(HEIGHT, y))}`;
  };
  return (
    <div className="field">
      <span className="note text-[12.5px]" id="signature-label">
        Signature: draw it here
      </span>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-labelledby="signature-label"
        className="w-full touch-none border"
        style={{ background: 'var(--field)', borderColor: 'var(--rule)', maxWidth: WIDTH, cursor: 'crosshair' }}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          drawing.current = true;
          add(`M${pointOf(event)}`);
        }}
        onPointerMove={(event) => drawing.current && add(`L${pointOf(event)}`)}
        onPointerUp={() => (drawing.current = false)}
      >
        <path d={value || 'M0 0'} fill="none" stroke="currentColor" strokeWidth="2.5" strokeLinecap="round" />
      </svg>
      {value && (
        <button type="button" className="button bare self-start" onClick={() => onValue((path.current = ''))}>
          Draw it again
        </button>
      )}
    </div>
  );
}
