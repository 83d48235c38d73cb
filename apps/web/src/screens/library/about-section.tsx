import { useNavigate } from 'react-router';
import { surveyStore } from './survey-store';
import { call } from '../../api/client';
import type { Surveyed } from '../../documents/kinds';
import { ColourButton } from '../../ui/colour-field';
import { Button, TextField } from '../../ui/controls';
import { removing } from '../../ui/removing';
import { msg } from '../../language/language';

/** What a scene is called, when it fits and which colours it has; and its removal. */
export function AboutSection({
  sceneId,
  now,
  during,
  commit,
}: {
  sceneId: string;
  now: Surveyed;
  during(value: Partial<Surveyed>): void;
  commit(value: Partial<Surveyed>): void;
}) {
  const navigate = useNavigate();
  const remove = async () => {
    const ask = call(
      'DELETE /api/scenes/:id',
      { params: { id: sceneId } },
      { revision: surveyStore.use.getState().revision },
    );
    if (await removing(ask, `"${now.title}"`, '/api/scenes')) void navigate('/library');
  };
  return (
    <div className="grid gap-2">
      <TextField label={msg('Title')} value={now.title} onCommit={(title) => title && commit({ title })} />
      <TextField
        label={msg('Season')}
        value={now.season ?? ''}
        onCommit={(season) => commit({ season: season.trim() || null })}
      />
      <span className="text-ink-2 text-[12px]">{msg('Palette')}</span>
      <div className="flex gap-1">
        {now.palette.map((c, i) => (
          <ColourButton
            key={i}
            label={msg('Colour {i} of the palette', { i: i + 1 })}
            value={c}
            onChange={(colour) => during({ palette: now.palette.with(i, colour) })}
            onCommit={(colour) => commit({ palette: now.palette.with(i, colour) })}
          />
        ))}
      </div>
      <Button tone="danger" onClick={() => void remove()}>
        {msg('Remove from the library')}
      </Button>
    </div>
  );
}
