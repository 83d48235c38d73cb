import type { ComponentProps } from 'react';
import type * as charts from 'react-chartjs-2';

/** Stands in for react-chartjs-2: jsdom has no canvas; what a chart says of itself is what tests can hold. */
export function Bar({ 'aria-label': label, role }: ComponentProps<typeof charts.Bar>) {
  return <div role={role} aria-label={label} />;
}
