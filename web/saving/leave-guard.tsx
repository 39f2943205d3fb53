/** Asks before a shot is left whose latest work is nowhere but in this page. */
import { useEffect } from 'react';
import { useBlocker } from 'react-router';
import { Button } from '../parts/button.tsx';
import { Dialog } from '../parts/dialog.tsx';
import { say, useDocument } from '../shot/document.ts';
import { openSaver } from './open-shot.ts';
import { landingText } from './saved-mark.tsx';
import { saveWorkToFile } from './work-file.ts';

/** The browser asks in its own words; who stays is offered the file. */
function askBeforeUnload(event: BeforeUnloadEvent): void {
  if (openSaver()?.onlyInMemory !== true) return;
  event.preventDefault();
  say('The latest work is only in this page.', { label: 'Save as a file', run: saveWorkToFile });
}

function WhatIsLost() {
  const { waiting, landing } = useDocument((s) => s.saving);
  return (
    <p className="mb-5 text-wax-300">
      {landing > 0
        ? landingText(landing)
        : `Neither the server nor this browser can keep it now: ${waiting === 1 ? '1 thing' : `${waiting} things`} would be lost. Saved as a file, it can be read back into this shot later.`}
    </p>
  );
}

export function LeaveGuard({ shotId }: { shotId: string }) {
  const blocker = useBlocker(
    ({ nextLocation }) =>
      !nextLocation.pathname.startsWith(`/shots/${shotId}/`) &&
      useDocument.getState().saving.state === 'memory' &&
      openSaver()?.onlyInMemory === true,
  );
  useEffect(() => {
    addEventListener('beforeunload', askBeforeUnload);
    return () => {
      removeEventListener('beforeunload', askBeforeUnload);
    };
  }, []);
  const stay = (): void => {
    blocker.reset?.();
  };
  return (
    <Dialog
      title="The latest work is only in this page"
      open={blocker.state === 'blocked'}
      onOpenChange={(open) => {
        if (!open) stay();
      }}
    >
      <WhatIsLost />
      <div className="flex justify-end gap-2">
        <Button
          onClick={() => {
            blocker.proceed?.();
          }}
        >
          Leave without it
        </Button>
        <Button onClick={saveWorkToFile}>Save as a file</Button>
        <Button look="primary" onClick={stay}>
          Stay
        </Button>
      </div>
    </Dialog>
  );
}
