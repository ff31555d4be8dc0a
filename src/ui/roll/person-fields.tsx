import { MODE_SAYS, MODES } from '@/core/plan/mode';
import type { RollCells, RollColumn } from '@/core/roll/roll-row';
import { Choice, Field, TextArea } from '../form/field';

interface Group {
  readonly id: string;
  readonly name: string;
}

interface Props {
  /** Whoever is being changed, as they stand; left out for somebody new. */
  readonly cells?: Required<RollCells>;
  /** Those of the course, where there are several. */
  readonly groups: readonly Group[];
}

const column = (name: RollColumn) => name;

/** The fields of one person of a roll. */
export function PersonFields({ cells, groups }: Props) {
  return (
    <>
      <Field label="Name" name={column('name')} required maxLength={100} defaultValue={cells?.name} />
      <div className="grid grid-cols-2 gap-3">
        <Field label="Age" name={column('age')} inputMode="numeric" defaultValue={cells?.age} />
        <Field
          label="Servings"
          name={column('servings')}
          inputMode="numeric"
          required
          defaultValue={cells?.servings ?? '1'}
        />
      </div>
      <Field
        label="Avoids"
        name={column('avoids')}
        maxLength={400}
        defaultValue={cells?.avoids}
        hint="As the family wrote it, separated by semicolons"
      />
      <Choice label="Mode" name={column('mode')} defaultValue={cells?.mode}>
        <option value="">as the session</option>
        {MODES.map((mode) => (
          <option key={mode} value={mode}>
            {mode}: {MODE_SAYS[mode]}
          </option>
        ))}
      </Choice>
      {groups.length > 0 && (
        <Choice label="Group" name={column('group')} defaultValue={cells?.group ?? groups[0]?.name}>
          {groups.map(({ id, name }) => (
            <option key={id}>{name}</option>
          ))}
        </Choice>
      )}
      <TextArea
        label="Family’s action plan"
        name={column('plan')}
        rows={3}
        maxLength={2000}
        defaultValue={cells?.plan}
        hint="What to do when something goes wrong. Shown in the room."
      />
      {!cells && (
        <Field
          label="Household"
          name={column('household')}
          maxLength={100}
          hint="Empty: the person stands for their own"
        />
      )}
      <Field
        label="Contact"
        name={column('contact')}
        maxLength={190}
        defaultValue={cells?.contact}
        hint={`E-mail or phone; only coordinators see it${cells ? '. Of the whole household' : ''}`}
      />
      <Field label="Address" name={column('address')} maxLength={255} defaultValue={cells?.address} />
      {/* What was shown: what is left as it is changes nothing that somebody else wrote meanwhile. */}
      <input type="hidden" name="shownContact" value={cells?.contact ?? ''} />
      <input type="hidden" name="shownAddress" value={cells?.address ?? ''} />
    </>
  );
}
