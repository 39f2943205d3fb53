/** What dropped files are taken for, before anything changes. */
import { Button } from '../parts/button.tsx';
import { ComingBar } from '../parts/coming-bar.tsx';
import { Choice } from '../parts/choice.tsx';
import { Dialog } from '../parts/dialog.tsx';
import { stopBringing, useReferences } from '../references/references.ts';
import { chooseIntake, leaveAll, takeFiles, useIntake, type Group } from './intake.ts';
import { TAKINGS } from './takings/index.ts';

const namesOf = ({ files }: Group): string =>
  files.length === 1 ? files[0].name : `${files[0].name} and ${files.length - 1} more`;

function Coming({ group, index }: { group: Group; index: number }) {
  const name = namesOf(group);
  const chosen = group.as && TAKINGS[group.as];
  return (
    <fieldset className="border-t border-soot-700 py-3 first:border-t-0" data-testid="intake-group">
      <legend className="sr-only">{name}</legend>
      <p className="truncate text-wax-100" data-tip={name}>
        {name}
      </p>
      {group.fits.length === 0 ? (
        <p className="text-[13px] text-warn">This cannot come in.</p>
      ) : (
        <Choice
          label={`${name} comes in as`}
          value={group.as}
          choices={[...group.fits, null].map((each) => ({
            value: each,
            label: each ? TAKINGS[each].label : 'Leave it out',
          }))}
          each="h-8 rounded-lg px-3"
          className="mt-2 flex-wrap gap-1.5"
          onChoose={(each) => {
            chooseIntake(index, each);
          }}
        />
      )}
      {chosen ? <p className="mt-1.5 text-[13px] text-wax-500">{chosen.says}</p> : null}
    </fieldset>
  );
}

/** How far what comes in is, where the references do not show it. */
export function IntakeComing() {
  const coming = useReferences((s) => (s.shown ? null : s.coming));
  return coming ? <ComingBar coming={{ name: 'Coming in', ...coming }} onStop={stopBringing} at="head" /> : null;
}

export function IntakeDialog() {
  const groups = useIntake((s) => s.groups);
  const whyNot = groups?.some(({ as }) => as) ? null : 'Nothing is left to come in.';
  return (
    <Dialog
      title="What comes in"
      open={groups !== null}
      onOpenChange={(open) => {
        if (!open) leaveAll();
      }}
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (!whyNot) void takeFiles();
        }}
        onKeyDown={(event) => {
          event.stopPropagation();
        }}
      >
        <div>
          {groups?.map((group, i) => (
            <Coming key={i} group={group} index={i} />
          ))}
        </div>
        <div className="mt-4 flex justify-end gap-2">
          <Button onClick={leaveAll}>Cancel</Button>
          <Button type="submit" look="primary" whyNot={whyNot} autoFocus>
            Bring in
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
