import { useEffect, useMemo, useState } from 'react';
import { useActions, useActionStore, type Action } from './actions';
import { Switch } from './controls';
import { Dialog } from './dialog';
import { isSilenced, ownerOfKeys, useLetterKeys, type KeyNotes } from './keys';
import { msg } from '../language/language';

/** Keys that every screen has. */
const EVERYWHERE: KeyNotes = [
  [msg('Ctrl K'), msg('Find an action by its name')],
  ['?', msg('This list')],
];

/** The keys of what is on screen, asked for with a question mark or from the command menu, and a switch for those of one letter. */
export function KeysDialog() {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.key !== '?' || e.defaultPrevented || isSilenced(e) || ownerOfKeys(e.target) === 'field') return;
      e.preventDefault();
      setOpen(true);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  const actions = useMemo<Action[]>(
    () => [
      {
        id: 'keys',
        title: msg('Keys of this screen'),
        group: msg('Help'),
        keys: '?',
        run: () => setOpen(true),
      },
    ],
    [],
  );
  useActions('keys', actions);
  if (!open) return null;
  return (
    <Dialog open onClose={() => setOpen(false)} title={msg('Keys of this screen')} wide>
      <KeyList />
    </Dialog>
  );
}

function KeyList() {
  const { sources, keys } = useActionStore();
  const letters = useLetterKeys((s) => s.on);
  const actions = Object.values(sources)
    .flat()
    .flatMap((a): [string, string][] => (a.keys && a.id !== 'keys' ? [[a.keys, a.title]] : []));
  const rows = [...actions, ...Object.values(keys).flat(), ...EVERYWHERE];
  return (
    <>
      <div className="mb-3">
        <Switch
          label={msg('Keys of a single letter or sign')}
          on={letters}
          onChange={(on) => useLetterKeys.setState({ on })}
        />
        <p className="text-ink-2 text-[12px]">
          {letters
            ? msg(
                'Switch them off if you dictate, or press keys by accident. Everything is in the command menu too.',
              )
            : msg('They do nothing now. Everything they did is in the command menu.')}
        </p>
      </div>
      <dl className="grid grid-cols-2 gap-x-8">
        {rows.map(([key, what]) => (
          <div
            key={key + what}
            className={`border-line flex min-h-8 items-center justify-between gap-4 border-b ${!letters && key.length === 1 ? 'opacity-45' : ''}`}
          >
            <dt>{what}</dt>
            <dd className="measure text-ink-2 whitespace-nowrap">{key}</dd>
          </div>
        ))}
      </dl>
    </>
  );
}
