import { Dialog } from 'radix-ui';
import { usePlaces } from '../ground/places';

type Keys = readonly (readonly [string, readonly (readonly [string, string])[]])[];

const keysWith = (parts: string): Keys => [
  [
    'Everywhere',
    [
      ['Ctrl K', 'go to any job, place or action'],
      ['[', 'previous month end'],
      [']', 'next month end'],
      [
        'Alt Enter',
        'the main act of the page, or of the form that is typed in: once, then again after something is typed or chosen',
      ],
      ['n, p', 'the next and the previous document'],
      ['?', 'this list'],
      ['Tab, then Enter', 'on a page just opened: skip to what is on it'],
      ['Esc', 'close, or one step back in the workings'],
    ],
  ],
  [
    'On a job',
    [
      ['1 … 9', parts],
      ['0', 'job summary'],
      ['j, k', 'the next and the previous part'],
      ['← →', 'previous and next part, on the row of parts'],
    ],
  ],
  [
    'In a grid',
    [
      ['Tab, arrows, Enter', 'move; after Tabs, Enter goes below the cell they began in'],
      ['typing', 'replaces the cell'],
      ['F2 or double click', 'edits what stands in the cell, as Enter does'],
      ['=12*3', 'in a cell of numbers, a sum: + − × ÷ and brackets'],
      ['Home, End', 'first and last cell of the row; with Ctrl, of the grid'],
      ['Space', 'in an empty cell, accepts the grey suggestion'],
      ['paste', 'pastes a block from a spreadsheet'],
      ['dragging, or Shift and arrows', 'select cells; what they come to stands below'],
      ['Ctrl C, Ctrl X, Delete', 'copy, cut or empty them'],
      ['Ctrl D', 'fill them down from the first; one cell, from the one above'],
      ['Alt ↓', 'fill the column down from here'],
      ['Ctrl Z, Ctrl Y', 'undo and redo'],
      ['Esc', 'leave the cell; an arrow goes back to it'],
      ['↑ ↓ then Enter', 'choose from the list'],
    ],
  ],
  [
    'On a choice',
    [
      ['Space, Enter or ↓', 'opens the list'],
      ['letters', 'choose what begins with them, open or not'],
      ['Esc', 'closes the list'],
    ],
  ],
  [
    'In a table',
    [
      ['a head', 'sorts by it'],
      ['dragging, or Shift and arrows', 'select cells; their sum and average stand below'],
      ['Space', 'picks the rows of the selected cells, where rows can be selected'],
      ['Ctrl C', 'copies them for a spreadsheet'],
      ['Esc', 'selects nothing'],
    ],
  ],
  [
    'Entering costs',
    [
      ['Alt P', 'preview the batch'],
      ['Alt Enter', 'post what was previewed'],
    ],
  ],
];

/** The keys that work, on `?`. */
export function KeyList({ open, onOpen }: { open: boolean; onOpen: (open: boolean) => void }) {
  const { jobParts } = usePlaces();
  const tabs = jobParts.filter((it) => !it.inner).slice(0, 9);
  return (
    <Dialog.Root open={open} onOpenChange={onOpen}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-50 bg-black/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-[5%] z-50 max-h-[90%] w-[min(1040px,94vw)] -translate-x-1/2 overflow-auto border p-6 bg-[var(--sheet)] border-[var(--rule)]"
        >
          <Dialog.Title asChild>
            <h2 className="mb-3">Keyboard shortcuts</h2>
          </Dialog.Title>
          <div className="gap-8 sm:columns-2 lg:columns-3">
            {keysWith(tabs.map((it) => it.title).join(', ')).map(([place, keys]) => (
              <section key={place} className="mb-4 break-inside-avoid">
                <h3 className="mb-1">{place}</h3>
                <dl className="m-0 grid gap-y-1 grid-cols-[124px_1fr]">
                  {keys.map(([key, what]) => (
                    <div key={key} className="contents">
                      <dt>
                        <kbd className="[font-family:inherit] font-semibold">{key}</kbd>
                      </dt>
                      <dd className="m-0">{what}</dd>
                    </div>
                  ))}
                </dl>
              </section>
            ))}
          </div>
          <Dialog.Close className="button mt-5">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
