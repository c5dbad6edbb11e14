import { ChevronDown } from 'lucide-react';
import { lazy, startTransition, Suspense, useState } from 'react';
import { titled, type ChoiceProps } from './options';

// The list is fetched when a choice is first touched, so that a page with choices on it opens without it.
const ChoiceList = lazy(async () => {
  const { ChoiceList } = await import('./ChoiceList');
  fetched = true;
  return { default: ChoiceList as typeof ChoiceList<string> };
});
let fetched = false;

type Touch = 'none' | 'near' | 'focused' | 'pressed';

/** One of a list. */
export function Choice<V extends string>(props: ChoiceProps<V>) {
  const [touch, setTouch] = useState<Touch>(fetched ? 'near' : 'none');
  const { value, options, onChange, className = '', ...rest } = props;
  // In a transition the button stays as it is until the list is there, so that no press falls between the two.
  const touched = (by: Touch) => startTransition(() => setTouch((before) => (before === 'pressed' ? before : by)));
  return (
    <Suspense>
      {touch === 'none' ? (
        <button
          type="button"
          role="combobox"
          aria-expanded={false}
          {...rest}
          className={`choice ${className}`}
          onPointerEnter={() => touched('near')}
          onFocus={() => touched('focused')}
          onPointerDown={() => touched('pressed')}
          onClick={() => touched('pressed')}
        >
          <span>{titled(options, value)}</span>
          <ChevronDown size={14} aria-hidden="true" />
        </button>
      ) : (
        <ChoiceList
          {...rest}
          value={value}
          options={options}
          className={className}
          onChange={(chosen) => onChange(chosen as V)}
          pressed={touch === 'pressed'}
          focused={touch === 'focused'}
        />
      )}
    </Suspense>
  );
}
