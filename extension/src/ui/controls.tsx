import { type ReactNode, useId } from 'react';

/** A button in words. `main` is what most will press, `loss` takes something away. */
export function Button({
  label,
  name,
  kind = 'plain',
  onPress,
}: {
  label: string;
  /** The accessible name, where the label does not say enough. */
  name?: string;
  kind?: 'main' | 'plain' | 'loss';
  onPress(): void;
}) {
  const looks = {
    main: 'border-accent bg-accent text-on-accent',
    plain: 'border-soft bg-transparent text-ink',
    loss: 'border-brick bg-transparent text-brick',
  };
  return (
    <button
      type="button"
      aria-label={name}
      onClick={onPress}
      className={`min-h-[44px] rounded-[14px] border px-[16px] font-ui text-base font-semibold ${looks[kind]}`}
    >
      {label}
    </button>
  );
}

/** A line of text to be written in. */
export function Field({
  label,
  value,
  onChange,
  onEnd,
  fault = null,
  long = false,
}: {
  label: string;
  value: string;
  onChange(value: string): void;
  /** It is left, or finished with Enter. */
  onEnd?(): void;
  fault?: string | null;
  long?: boolean;
}) {
  const id = useId();
  const looks = 'w-full rounded-[14px] border border-soft bg-raised px-[12px] py-[10px] font-ui text-base text-ink';
  const common = {
    id,
    value,
    onBlur: onEnd,
    'aria-invalid': fault !== null,
    'aria-describedby': fault === null ? undefined : `${id}-fault`,
  };
  return (
    <div className="flex flex-col gap-[4px]">
      <label htmlFor={id} className="font-ui text-small text-soft">
        {label}
      </label>
      {long ? (
        <textarea {...common} rows={3} onChange={({ target }) => onChange(target.value)} className={looks} />
      ) : (
        <input
          {...common}
          onChange={({ target }) => onChange(target.value)}
          onKeyDown={({ key }) => {
            if (key === 'Enter') onEnd?.();
          }}
          className={`min-h-[44px] ${looks}`}
        />
      )}
      {fault !== null && (
        <p id={`${id}-fault`} role="alert" className="font-ui text-small text-brick">
          {fault}
        </p>
      )}
    </div>
  );
}

/** One of a few. */
export function Choice<Value extends string>({
  label,
  value,
  options,
  onChange,
  narrow = false,
}: {
  label: string;
  /** It takes no more room than it needs. */
  narrow?: boolean;
  value: Value;
  options: readonly { value: Value; label: string }[];
  onChange(value: Value): void;
}) {
  const id = useId();
  return (
    <div className={`flex min-w-0 flex-col gap-[4px] ${narrow ? 'w-[110px]' : 'flex-1'}`}>
      <label htmlFor={id} className="font-ui text-small text-soft">
        {label}
      </label>
      <select
        id={id}
        value={value}
        onChange={({ target }) => {
          const chosen = options.find((option) => option.value === target.value);
          if (chosen) onChange(chosen.value);
        }}
        className="min-h-[44px] w-full rounded-[14px] border border-soft bg-raised px-[10px] font-ui text-base text-ink"
      >
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.label}
          </option>
        ))}
      </select>
    </div>
  );
}

/** Something that is on or off. */
export function Chip({ label, name, on, onPress }: { label: string; name: string; on: boolean; onPress(): void }) {
  return (
    <button
      type="button"
      aria-label={name}
      aria-pressed={on}
      onClick={onPress}
      className={`min-h-[44px] rounded-[22px] border px-[14px] font-ui text-base ${on ? 'border-accent bg-accent text-on-accent' : 'border-soft bg-transparent text-ink'}`}
    >
      {label}
    </button>
  );
}

/** A part of a page under its heading. */
export function Part({ heading, children }: { heading: string; children: ReactNode }) {
  const id = useId();
  return (
    <section aria-labelledby={id} className="flex flex-col gap-[10px]">
      <h2 id={id} className="font-ui text-small font-semibold text-soft">
        {heading}
      </h2>
      {children}
    </section>
  );
}
