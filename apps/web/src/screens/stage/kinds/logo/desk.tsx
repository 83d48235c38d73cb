import { Link } from 'react-router';
import type { LogoElement } from '@scenograph/core/elements/logo/model';
import type { ShotElement } from '@scenograph/core/elements/index';
import { reducedUrl } from '../../../../api/client';
import { useKit } from '../../../../api/brand';
import { Button } from '../../../../ui/controls';
import { Choice, Share } from '../../overlays/fields';
import type { OverlayDeskProps } from '../../overlays/overlay-desk-props';
import { msg, rich } from '../../../../language/language';

export function LogoDesk({ element, placed: box, frame, during, commit }: OverlayDeskProps<LogoElement>) {
  const field = { element, during, commit };
  const put = (right: boolean, low: boolean) => {
    const { width: w, height: h } = frame;
    const clear = Math.min(w, h) * 0.05;
    commit(msg('Place the logo'), {
      box: { ...box, x: right ? w - clear - box.width : clear, y: low ? h - clear - box.height : clear },
    });
  };
  return (
    <div className="grid gap-2.5">
      <LogoChoice element={element} commit={commit} />
      <Choice
        {...field}
        label={msg('Chosen for')}
        step={msg('Logo for')}
        path="ground"
        options={[
          { value: 'auto', title: msg('What lies beneath') },
          { value: 'light', title: msg('Light') },
          { value: 'dark', title: msg('Dark') },
        ]}
      />
      <div className="grid grid-cols-2 gap-1.5">
        <Button onClick={() => put(false, false)}>{msg('Top left')}</Button>
        <Button onClick={() => put(true, false)}>{msg('Top right')}</Button>
        <Button onClick={() => put(false, true)}>{msg('Bottom left')}</Button>
        <Button onClick={() => put(true, true)}>{msg('Bottom right')}</Button>
      </div>
      <Share {...field} label={msg('Clear space')} path="clear" max={2} />
    </div>
  );
}

/** The logos of the brand kit, to choose one of. */
export function LogoChoice({
  element,
  commit,
}: {
  element: ShotElement & { light: string | null; dark: string | null };
  commit: OverlayDeskProps['commit'];
}) {
  const { logos } = useKit();
  if (!logos.length)
    return (
      <p className="text-ink-2">
        {rich('The brand kit has no logo yet. <link>Add one there.</link>', {
          link: (inside) => (
            <Link to="/brand" className="text-spruce underline">
              {inside}
            </Link>
          ),
        })}
      </p>
    );
  return (
    <div role="group" aria-label={msg('Logos of the brand kit')} className="grid grid-cols-2 gap-1.5">
      {logos.map((l) => (
        <button
          key={l.id}
          type="button"
          aria-pressed={element.brand.logo === l.id}
          title={l.title}
          className={`flex h-14 items-center justify-center gap-2 rounded-md border px-2 ${element.brand.logo === l.id ? 'border-spruce outline-spruce outline-1' : 'border-line'}`}
          onClick={() =>
            commit(msg('Choose a logo'), {
              light: l.light?.picture ?? null,
              dark: l.dark?.picture ?? null,
              brand: { ...element.brand, logo: l.id },
            })
          }
        >
          {l.light && (
            <img src={reducedUrl(l.light.picture, 160)} alt="" className="max-h-9 max-w-14 bg-white p-1" />
          )}
          {l.dark && (
            <img src={reducedUrl(l.dark.picture, 160)} alt="" className="max-h-9 max-w-14 bg-[#2b2f2d] p-1" />
          )}
          <span className="sr-only">{l.title}</span>
        </button>
      ))}
    </div>
  );
}
