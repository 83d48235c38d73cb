import { DropdownMenu } from 'radix-ui';

export function MenuItem({ onSelect, children }: { onSelect(): void; children: React.ReactNode }) {
  return (
    <DropdownMenu.Item
      onSelect={onSelect}
      className="data-[highlighted]:bg-spruce-tint flex h-8 cursor-pointer items-center gap-2 rounded-sm px-2.5 outline-none"
    >
      {children}
    </DropdownMenu.Item>
  );
}
