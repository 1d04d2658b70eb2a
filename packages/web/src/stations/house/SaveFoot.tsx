import { useMay } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Notice } from '../../kit/Notice.tsx';
import type { SaveHouse } from './useSaveHouse.ts';

/** What stands under every form of the house: what came of saving, and the button for those who may. */
export const SaveFoot = ({ saving }: { readonly saving: SaveHouse }) => (
  <>
    {saving.error !== null && <Notice tone="alarm">{saving.error.message}</Notice>}
    {saving.saved && <Notice tone="calm">Saved.</Notice>}
    {useMay('house.saveSettings') ? (
      <div className="sticky bottom-0 -mx-5 border-t border-line bg-ground px-5 py-3">
        <Button type="submit" variant="strong" size="bench" disabled={saving.pending}>
          Save
        </Button>
      </div>
    ) : (
      <p className="text-ink-soft">The head chef changes these.</p>
    )}
  </>
);
