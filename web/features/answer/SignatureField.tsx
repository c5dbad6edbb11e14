import { Field } from '../../kit/Field';
import { useRef, useState } from 'react';

const WIDTH = 400;
const HEIGHT = 120;

interface SignatureProps {
  value: string;
  /** Of whoever signs: what is typed begins with it. */
  name: string;
  onValue: (signature: string) => void;
}

/** A signature: drawn, or typed by whoever cannot draw. */
export function SignatureField({ value, name, onValue }: SignatureProps) {
  const [typed, setTyped] = useState(false);
  const choose = (types: boolean) => {
    setTyped(types);
    onValue(types && name.trim() !== '' ? `typed: ${name.trim()}` : '');
  };
  return (
    <div>
      {typed ? (
        <Field label="Signature: type your name as you sign">
          <input
            className="typed-signature max-w-[400px]"
            value={value.replace(/^typed: /, '')}
            onChange={(event) => onValue(event.target.value.trim() === '' ? '' : `typed: ${event.target.value.trimStart()}`)}
          />
        </Field>
      ) : (
        <Drawn value={value} onValue={onValue} />
      )}
      <button type="button" className="button bare" onClick={() => choose(!typed)}>
        {typed ? 'Draw it instead' : 'Type it instead'}
      </button>
    </div>
  );
}

/** A field to draw in, with mouse, pen or finger. Gives the strokes as a path. */
function Drawn({ value, onValue }: { value: string; onValue: (path: string) => void }) {
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
