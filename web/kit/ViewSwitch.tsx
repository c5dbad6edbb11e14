/** Views of one thing beside each other, of which one is shown. */
export function ViewSwitch<Name extends string>({
  label,
  views,
  shown,
  onShow,
}: {
  label: string;
  views: readonly (readonly [name: Name, title: string])[];
  shown: Name;
  onShow: (name: Name) => void;
}) {
  return (
    <div role="group" aria-label={label} className="view-switch">
      {views.map(([name, title]) => (
        <button key={name} type="button" className="button" aria-pressed={name === shown} onClick={() => onShow(name)}>
          {title}
        </button>
      ))}
    </div>
  );
}
