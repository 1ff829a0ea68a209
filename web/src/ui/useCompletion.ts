import { useCombobox } from 'downshift';

const { stateChangeTypes } = useCombobox;

/**
 * A text box with a list of completions below it (the combobox pattern of WAI-ARIA). The arrow keys
 * and the pointer choose in the list; all other keys are the box's own.
 *
 * @param first whether the first completion is highlighted from the start
 * @param onKey handles a key, given the highlighted completion; true prevents what it does by default
 */
export function useCompletion<Option>({
  options,
  text,
  open,
  first,
  onOpen,
  onText,
  onChoose,
  onKey,
}: {
  options: Option[];
  text: string;
  open: boolean;
  first: boolean;
  onOpen?(open: boolean): void;
  onText(text: string): void;
  onChoose(option: Option): void;
  onKey(e: React.KeyboardEvent, highlighted: Option | undefined): boolean;
}) {
  const box = useCombobox<Option>({
    items: options,
    inputValue: text,
    isOpen: open,
    selectedItem: null, // what is chosen goes into the text or the rule
    defaultHighlightedIndex: first ? 0 : -1,
    itemToString: () => '',
    onIsOpenChange: ({ isOpen }) => onOpen?.(isOpen),
    onSelectedItemChange: ({ selectedItem }) => {
      if (selectedItem !== null) onChoose(selectedItem);
    },
    stateReducer: (_, { type, changes }) => {
      switch (type) {
        case stateChangeTypes.InputBlur: // chooses nothing
          return { ...changes, selectedItem: null };
        case stateChangeTypes.InputClick:
          return { ...changes, isOpen: true };
        default:
          return changes;
      }
    },
  });
  const at = Math.min(box.highlightedIndex, options.length - 1);
  return {
    at,
    label: box.getLabelProps,
    menu: box.getMenuProps,
    option: (index: number) => box.getItemProps({ item: options[index]!, index }),
    input: () =>
      box.getInputProps<React.HTMLProps<HTMLInputElement & HTMLTextAreaElement>>({
        onChange: (e: React.ChangeEvent<HTMLInputElement>) => {
          onText(e.target.value);
          onOpen?.(true);
        },
        onBlur: () => onOpen?.(false),
        onKeyDown: (e: React.KeyboardEvent) => {
          e.stopPropagation();
          if (onKey(e, at < 0 ? undefined : options[at])) {
            e.preventDefault();
            box.setHighlightedIndex(first ? 0 : -1);
          }
          // The list has only the keys that move in it.
          const moves = ['ArrowDown', 'ArrowUp', 'PageDown', 'PageUp'].includes(e.key);
          if (!moves) Object.assign(e.nativeEvent, { preventDownshiftDefault: true });
        },
      }),
  };
}
