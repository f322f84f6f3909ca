/** A few choices side by side, of which one holds. */
export interface SwitchProps<T extends string> {
  label: string;
  value: T;
  choices: { value: T; label: string }[];
  onChoose: (value: T) => void;
}

export function Switch<T extends string>({ label, value, choices, onChoose }: SwitchProps<T>) {
  return (
    <div className="switch" role="radiogroup" aria-label={label}>
      {choices.map((choice) => (
        <button
          key={choice.value}
          type="button"
          role="radio"
          aria-checked={choice.value === value}
          onClick={() => onChoose(choice.value)}
        >
          {choice.label}
        </button>
      ))}
    </div>
  );
}
