import { Select } from '../../ui/controls';
import { msg } from '../../language/language';

const PRIORITIES = [
  { value: '5', title: msg('High') },
  { value: '0', title: msg('Normal') },
  { value: '-5', title: msg('Low') },
];

/** Which deliveries the painters take first. */
export function PriorityChoice({ value, onChange }: { value: number; onChange(value: number): void }) {
  return (
    <Select
      label={msg('Priority')}
      value={value > 0 ? '5' : value < 0 ? '-5' : '0'}
      onChange={(v) => onChange(Number(v))}
      options={PRIORITIES}
    />
  );
}
