import { AlertDialog } from 'radix-ui';

/** Asks whether what is typed may be lost. */
export function LeaveQuestion({ onStay, onLeave }: { onStay: () => void; onLeave: () => void }) {
  return (
    <AlertDialog.Root open onOpenChange={(open) => !open && onStay()}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-50 bg-black/30" />
        <AlertDialog.Content className="pop fixed left-1/2 top-[140px] w-[420px] -translate-x-1/2 p-5">
          <AlertDialog.Title asChild>
            <h2>Leave without saving?</h2>
          </AlertDialog.Title>
          <AlertDialog.Description asChild>
            <p>What you typed on this page is not saved yet.</p>
          </AlertDialog.Description>
          <div className="flex gap-3">
            <AlertDialog.Cancel className="button main">Stay</AlertDialog.Cancel>
            <AlertDialog.Action className="button" onClick={onLeave}>
              Leave
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
