import { DropdownMenu } from 'radix-ui';
import { useState, type ReactNode } from 'react';
import { Menu } from './Menu';

/**
 * A menu of the list of rules whose parts are made when it is pointed at or gets the focus: a long
 * list has two in each row.
 */
export function LazyMenu({
  attributes,
  label,
  children,
}: {
  /** Of the button. */
  attributes: Record<string, string>;
  label: ReactNode;
  /** The items of the menu. */
  children(): ReactNode;
}) {
  const [made, setMade] = useState<'not' | 'pointed' | 'focused'>('not');
  if (made === 'not') {
    return (
      <button
        type="button"
        aria-haspopup="menu"
        aria-expanded={false}
        onPointerEnter={() => setMade('pointed')}
        onFocus={() => setMade('focused')}
        {...attributes}
      >
        {label}
      </button>
    );
  }
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger autoFocus={made === 'focused'} {...attributes}>
        {label}
      </DropdownMenu.Trigger>
      <Menu inList>{children()}</Menu>
    </DropdownMenu.Root>
  );
}
