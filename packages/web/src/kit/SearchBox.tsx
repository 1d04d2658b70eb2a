import { Search } from 'lucide-react';
import { inputLook } from './Field.tsx';

interface Props {
  /** What is searched, for those who hear it. */
  readonly label: string;
  /** What one might type. */
  readonly placeholder: string;
  readonly value: string;
  readonly onValue: (value: string) => void;
  readonly className?: string;
}

/** Narrows the list below it while one types. */
export function SearchBox({ label, placeholder, value, onValue, className = '' }: Props) {
  return (
    <div className={`relative ${className}`}>
      <Search size={18} className="absolute top-3 left-3 text-ink-soft" aria-hidden="true" />
      <input
        type="search"
        aria-label={label}
        placeholder={placeholder}
        className={`${inputLook} h-11 pl-9`}
        value={value}
        onChange={(event) => onValue(event.target.value)}
      />
    </div>
  );
}
