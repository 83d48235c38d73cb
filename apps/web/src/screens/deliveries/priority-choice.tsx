import { Select } from '../../ui/controls';

const PRIORITIES = [
  { value: '5', title: 'High' },
  { value: '0', title: 'Normal' },
  { value: '-5', title: 'Low' },
];

/** Which deliveries the painters take first. */
export function PriorityChoice({ value, onChange }: { value: number; onChange(value: number): void }) {
  return (
    <Select
      label="Priority"
      value={value > 0 ? '5' : value < 0 ? '-5' : '0'}
      onChange={(v) => onChange(Number(v))}
      options={PRIORITIES}
    />
  );
}
