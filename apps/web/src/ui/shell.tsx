import { useEffect, useMemo, useState } from 'react';
import { Outlet, useMatches, useNavigate } from 'react-router';
import { useServerEvents } from '../api/events';
import { bringIn } from '../api/uploads';
import { keepSending } from '../documents/send-unsent';
import { CommandMenu, useActions, type Action } from './actions';
import { FetchBar, FetchWatch } from './failing';
import { useLengthUnit } from './length-field';
import { KeysDialog } from './keys-dialog';
import { SkipLink, useLanding } from './landing';
import { MissingBar } from './missing-bar';
import { Notices } from './notices';
import { usePlaces } from './places';
import { chooseLanguage, LANGUAGES, msg, type Language } from '../language/language';

/** What dropping files does: photos are imported, unless the screen has a place for pictures that says otherwise. */
const dropSays = () =>
  document.querySelector<HTMLElement>('[data-drop-says]')?.dataset.dropSays ??
  msg('Drop to import these photos');

const UNITS: Action[] = (['mm', 'in'] as const).map((unit) => ({
  id: `unit-${unit}`,
  title: unit === 'in' ? msg('Lengths in inches') : msg('Lengths in millimetres'),
  group: msg('Look'),
  run: () => useLengthUnit.setState({ unit }),
}));

const TONGUES: Action[] = (Object.keys(LANGUAGES) as Language[]).map((language) => ({
  id: `language-${language}`,
  // In its own words, and findable by the English one.
  title: `${LANGUAGES[language]} (Language)`,
  group: msg('Look'),
  run: () => chooseLanguage(language),
}));

/** Around every screen: what is fetched is watched, and the rest of the frame. */
export function Shell() {
  return (
    <FetchWatch>
      <Frame />
    </FetchWatch>
  );
}

/** Server events, dropping and pasting photos anywhere, the command menu, notices. */
function Frame() {
  useServerEvents();
  useLanding();
  const navigate = useNavigate();
  useEffect(() => keepSending((path) => void navigate(path)), [navigate]);
  const [over, setOver] = useState(false);
  const { title } = (useMatches().at(-1)?.handle ?? {}) as { title?: string };
  useEffect(() => {
    document.title = title ? msg('{title} - Scenograph', { title }) : 'Scenograph';
  }, [title]);

  useEffect(() => {
    const take = (files: FileList | undefined | null) => {
      if (!files?.length) return;
      bringIn(files);
      void navigate('/photos');
    };
    const isFiles = (e: DragEvent) => !!e.dataTransfer?.types.includes('Files');
    const onOver = (e: DragEvent) => {
      if (!isFiles(e)) return;
      e.preventDefault();
      setOver(true);
    };
    const onLeave = (e: DragEvent) => !e.relatedTarget && setOver(false);
    const onDrop = (e: DragEvent) => {
      setOver(false);
      if (!isFiles(e) || e.defaultPrevented) return;
      e.preventDefault();
      take(e.dataTransfer?.files);
    };
    const onPaste = (e: ClipboardEvent) => !e.defaultPrevented && take(e.clipboardData?.files);
    window.addEventListener('dragover', onOver);
    window.addEventListener('dragleave', onLeave);
    window.addEventListener('drop', onDrop);
    window.addEventListener('paste', onPaste);
    return () => {
      window.removeEventListener('dragover', onOver);
      window.removeEventListener('dragleave', onLeave);
      window.removeEventListener('drop', onDrop);
      window.removeEventListener('paste', onPaste);
    };
  }, [navigate]);

  const places = usePlaces();
  const actions = useMemo<Action[]>(
    () =>
      places.map(({ path, title }) => ({
        id: path,
        title: msg('Go to {title}', { title }),
        group: msg('Go to'),
        run: () => void navigate(path),
      })),
    [places, navigate],
  );
  useActions('places', actions);
  useActions('units', UNITS);
  useActions('languages', TONGUES);

  return (
    <div className="flex h-full flex-col">
      <SkipLink />
      <FetchBar />
      <MissingBar />
      <Outlet />
      {over && (
        <div className="pointer-events-none fixed inset-0 z-[70] flex items-center justify-center bg-[#12463ae6]">
          <p className="font-display text-[26px] font-bold text-white">{dropSays()}</p>
        </div>
      )}
      <CommandMenu />
      <KeysDialog />
      <Notices />
    </div>
  );
}
