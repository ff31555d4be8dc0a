'use client';

import { ActionForm } from '@/ui/form/action-form';
import type { FormState } from '@/ui/form/form-state';
import { DataTable, type TableColumn } from '@/ui/table/data-table';

/** What a word of families means here. */
interface Meaning {
  readonly word: string;
  readonly codes: readonly string[];
  /** The same in words; '' where it says nothing to avoid. */
  readonly avoids: string;
  readonly giverName: string;
}

const COLUMNS: readonly TableColumn<Meaning>[] = [
  { id: 'word', header: 'Word', isName: true, value: ({ word }) => `“${word}”` },
  { id: 'avoids', header: 'Avoids', value: ({ avoids }) => avoids || 'nothing' },
  { id: 'giver', header: 'Said by', value: ({ giverName }) => giverName },
];

/** What families’ words mean here, each to be taken back. */
export function Meanings({
  meanings,
  forget,
}: {
  meanings: readonly Meaning[];
  forget: (word: string, shown: readonly string[]) => Promise<FormState>;
}) {
  return (
    <DataTable
      label="What families’ words mean here"
      rows={meanings}
      idOf={({ word }) => word}
      columns={COLUMNS}
      {...(meanings.length > 8 ? { find: 'Find a word' } : {})}
      actions={({ word, codes }) => (
        <ActionForm action={() => forget(word, codes)} label={`Take back the meaning of ${word}`}>
          <button type="submit" className="btn btn-sm" aria-label={`Take back the meaning of ${word}`}>
            Take back
          </button>
        </ActionForm>
      )}
    />
  );
}
