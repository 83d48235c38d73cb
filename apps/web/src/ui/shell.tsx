import { useEffect, useMemo, useState } from 'react';
import { Outlet, useNavigate } from 'react-router';
import { useServerEvents } from '../api/events';
import { bringIn } from '../api/uploads';
import { CommandMenu, useActions, type Action } from './actions';
import { Notices } from './notices';

/** Around every screen: server events, dropping and pasting photos anywhere, the command menu, notices. */
export function Shell() {
  useServerEvents();
  const navigate = useNavigate();
  const [over, setOver] = useState(false);

  useEffect(() => {
    const take = (files: FileList | undefined | null) => {
      if (!files?.length) return;
      bringIn(files);
      navigate('/photos');
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
    const onPaste = (e: ClipboardEvent) => take(e.clipboardData?.files);
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

  const actions = useMemo<Action[]>(
    () =>
      [
        ['/listings', 'Listings'],
        ['/photos', 'Photos'],
        ['/products', 'Products'],
        ['/library', 'Library of scenes and logos'],
        ['/brand', 'Brand kit'],
        ['/templates', 'Templates'],
        ['/spec-sheets', 'Spec sheets'],
        ['/deliveries', 'Deliveries'],
      ].map(([to, title]) => ({
        id: to,
        title: `Go to ${title}`,
        group: 'Go to',
        run: () => void navigate(to),
      })),
    [navigate],
  );
  useActions('places', actions);

  return (
    <div className="flex h-full flex-col">
      <Outlet />
      {over && (
        <div className="pointer-events-none fixed inset-0 z-[70] flex items-center justify-center bg-[#12463ae6]">
          <p className="font-display text-[26px] font-bold text-white">Let go to bring these photos in</p>
        </div>
      )}
      <CommandMenu />
      <Notices />
    </div>
  );
}
