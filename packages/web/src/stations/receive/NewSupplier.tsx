import { useQueryClient } from '@tanstack/react-query';
import { useCommand } from '../../app/command.ts';
import { api } from '../../app/endpoints.ts';
import { OneField, someWords } from '../../kit/OneField.tsx';

/** Writes down a supplier by name. `onAdded`: where it is wanted at once. */
export function NewSupplier({ onAdded }: { readonly onAdded?: (id: string) => void }) {
  const client = useQueryClient();
  const add = useCommand(api.receive.addSupplier, {
    onDone: async ({ id }) => {
      await client.invalidateQueries({ queryKey: ['suppliers'] });
      onAdded?.(id);
    },
  });
  return (
    <OneField
      key={add.answer?.id ?? 'first'}
      formClass="flex items-start gap-2"
      className="flex-1"
      label="New supplier"
      maxLength={120}
      error={add.error?.message}
      hint={add.answer && `${add.answer.name} is written down`}
      read={someWords}
      onSend={(name) => add.send({ body: { name } })}
      pending={add.pending}
      send="Add"
      // beside the field, under its label, however long what is said of the last one
      sending={{ className: 'mt-7 h-11' }}
    />
  );
}
