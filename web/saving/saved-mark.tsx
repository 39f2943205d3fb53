/** How far the shot is saved, in the header; opened, it tells who keeps what and what can be done. */
import { Popover } from 'radix-ui';
import { HardDrive, Server } from 'lucide-react';
import { useRef, type ReactNode } from 'react';
import { Button } from '../parts/button.tsx';
import { useDocument, type Saving } from '../shot/document.ts';
import { openSaver } from './open-shot.ts';
import { readWorkFromFile, saveWorkToFile } from './work-file.ts';

const WORDS = {
  saved: ['Saved', 'text-sound'],
  saving: ['Saving …', 'text-wax-300'],
  unsaved: ['Not saved yet', 'text-warn'],
  memory: ['Only in this page', 'text-harm'],
} as const;

const things = (count: number): string => (count === 1 ? '1 thing' : `${count} things`);

/** What is said of strokes whose drawing has not come yet. */
export const landingText = (count: number): string =>
  count === 1
    ? 'The last stroke waits until its drawing has come from the server: keep this page open.'
    : `${count} strokes wait until their drawing has come from the server: keep this page open.`;

/** What is kept where, in one sentence or two. */
function savingText({ state, waiting, landing, server, browser }: Saving): string {
  if (landing > 0) return landingText(landing);
  if (state === 'saved')
    return browser === null
      ? 'Everything drawn is on the server'
      : `Everything drawn is on the server. This browser keeps no copy: ${browser}`;
  if (state === 'saving')
    return `${things(waiting)} on the way to the server${browser === null ? '' : `. This browser keeps no copy: ${browser}`}`;
  if (state === 'unsaved')
    return `${server}. Your work is kept in this browser; saving goes on by itself. ${things(waiting)} to go.`;
  return `${server}, and this browser keeps nothing: ${browser}. ${things(waiting)} in this page only: keep it open, or save them as a file.`;
}

function Row({ icon, children, trouble }: { icon: ReactNode; children: ReactNode; trouble: boolean }) {
  return (
    <p className={`flex gap-2.5 text-[13px] ${trouble ? 'text-warn' : 'text-wax-300'}`}>
      <span className="mt-0.5 shrink-0">{icon}</span>
      <span className="min-w-0 break-words">{children}</span>
    </p>
  );
}

export function SavedMark() {
  const saving = useDocument((s) => s.saving);
  const file = useRef<HTMLInputElement>(null);
  const [text, colour] = WORDS[saving.state];
  const { state, waiting, landing, server, browser, refused } = saving;
  return (
    <Popover.Root>
      <span role="status" className="sr-only">
        {text}
      </span>
      <Popover.Trigger
        aria-label={`${text}. Show what is kept where`}
        className={`moves h-8 w-[136px] shrink-0 rounded-lg px-2 text-right text-[13px] hover:bg-soot-800 ${colour}`}
        data-tip={savingText(saving)}
      >
        <span data-testid="saved" data-tip={savingText(saving)}>
          {text}
        </span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={8}
          aria-label="What is saved where"
          className="z-40 grid w-[392px] gap-3 rounded-[10px] border border-soot-700 bg-soot-900 p-4 shadow-2xl"
        >
          {landing > 0 ? <p className="text-[13px] text-harm">{landingText(landing)}</p> : null}
          <Row icon={<Server size={15} />} trouble={server !== null}>
            {waiting === 0
              ? 'The server has everything.'
              : `${things(waiting)} not on the server yet${server === null ? ', on the way.' : `. ${server}.`}`}
          </Row>
          <Row icon={<HardDrive size={15} />} trouble={browser !== null}>
            {browser !== null
              ? `This browser keeps nothing: ${browser}. It is tried again by itself.`
              : waiting === 0
                ? 'This browser keeps whatever the server does not have yet.'
                : 'This browser keeps all of it until then.'}
          </Row>
          {refused.length > 0 ? (
            <ul className="max-h-40 space-y-1 overflow-y-auto text-[13px] text-warn">
              {refused.map((each) => (
                <li key={each} className="break-words">
                  {each}
                </li>
              ))}
            </ul>
          ) : null}
          <div className="flex flex-wrap gap-2">
            {server !== null ? (
              <Button
                onClick={() => {
                  openSaver()?.tryNow();
                }}
              >
                Try again now
              </Button>
            ) : null}
            <Button
              look={state === 'memory' ? 'primary' : 'quiet'}
              whyNot={waiting === 0 ? 'Everything is on the server.' : null}
              title="All that the server does not have, to be read back here later"
              onClick={saveWorkToFile}
            >
              Save as a file
            </Button>
            <Button
              title="Work of this shot that was saved as a file"
              onClick={() => {
                file.current?.click();
              }}
            >
              Read from a file
            </Button>
          </div>
          <input
            ref={file}
            type="file"
            accept="application/json,.json"
            aria-label="File of unsaved work"
            className="hidden"
            onChange={(event) => {
              const [chosen] = event.target.files ?? [];
              event.target.value = '';
              if (chosen) void readWorkFromFile(chosen);
            }}
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
