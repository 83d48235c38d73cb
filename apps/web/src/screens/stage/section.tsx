import { Accordion } from 'radix-ui';
import type { ReactNode } from 'react';

/** One section of the desk, numbered in the order of work. */
export function Section({
  n,
  id,
  title,
  summary,
  tone,
  children,
}: {
  n: number;
  id: string;
  title: string;
  summary: ReactNode;
  tone?: string;
  children: ReactNode;
}) {
  return (
    <Accordion.Item value={id} className="border-line border-b">
      <Accordion.Header>
        <Accordion.Trigger className="group flex h-9.5 w-full items-center gap-2 px-3.5 text-left focus-visible:outline-offset-[-2px]">
          <span className="bg-spruce-tint text-spruce group-data-[state=open]:bg-spruce measure flex h-5 w-5 items-center justify-center rounded-sm font-semibold group-data-[state=open]:text-white">
            {n}
          </span>
          <span className="font-semibold">{title}</span>
          <span className={`measure ml-auto truncate ${tone ?? 'text-ink-2'}`}>{summary}</span>
        </Accordion.Trigger>
      </Accordion.Header>
      <Accordion.Content className="px-3.5 pb-3.5">{children}</Accordion.Content>
    </Accordion.Item>
  );
}
