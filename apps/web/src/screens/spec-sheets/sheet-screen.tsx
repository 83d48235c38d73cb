import type { AnswerOf } from '@scenograph/contract';
import { ArrowDown, ArrowUp, Copy, Plus, Trash2 } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { CHECK_TITLES } from '@scenograph/core/spec/checks/index';
import { readSpecSheet } from '@scenograph/core/spec/read-spec-sheet';
import type { Severity, Slot, SpecSheet } from '@scenograph/core/spec/slot';
import { refresh, ServerRefusal, call, useRoute } from '../../api/client';
import { Button, IconButton, Select, TextField } from '../../ui/controls';
import { say } from '../../ui/notices';
import { Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { SlotForm } from './slot-form';

export function SheetScreen() {
  const { id = '' } = useParams();
  const { data, error } = useRoute('GET /api/spec-sheets/:sheet', { params: { sheet: id } });
  return (
    <>
      <TopBar />
      {error && <Trouble error={error} />}
      {!data && !error && <Waiting what="the spec sheet" />}
      {data && <SheetEditor key={data.sheet.id} history={data} />}
    </>
  );
}

/** A sheet is changed as a draft and saved as its next version, so that a half-typed rule never stops a picture. */
function SheetEditor({ history }: { history: AnswerOf<'GET /api/spec-sheets/:sheet'> }) {
  const navigate = useNavigate();
  const { sheet: stored, versions } = history;
  const [draft, setDraft] = useState<SpecSheet>(stored);
  const [past, setPast] = useState<SpecSheet[]>([]);
  const [at, setAt] = useState(0);
  const [tab, setTab] = useState<'slot' | 'severity'>('slot');
  useEffect(() => setDraft(stored), [stored]);
  const edit = (next: SpecSheet) => {
    setPast((p) => [...p.slice(-100), draft]);
    setDraft(next);
  };
  const slot = draft.slots[Math.min(at, draft.slots.length - 1)];
  const setSlot = (patch: Partial<Slot>) =>
    edit({ ...draft, slots: draft.slots.map((s) => (s === slot ? { ...s, ...patch } : s)) });
  const trouble = useMemo(() => {
    try {
      readSpecSheet(draft);
      return '';
    } catch (e) {
      return (e as Error).message;
    }
  }, [draft]);
  const changed = JSON.stringify(draft) !== JSON.stringify(stored);

  const save = async () => {
    try {
      const saved = await call('PUT /api/spec-sheets/:sheet', {
        params: { sheet: stored.id },
        body: {
          version: stored.version,
          sheet: draft,
        },
      });
      setPast([]);
      say('pass', `Saved as version ${saved.version}. Boards show what no longer passes.`);
    } catch (e) {
      say('stop', (e as Error).message);
      if (!(e instanceof ServerRefusal) || e.status !== 409) return;
    }
    refresh('/api/spec-sheets', '/api/listings');
  };
  const remove = async () => {
    try {
      await call('DELETE /api/spec-sheets/:sheet', { params: { sheet: stored.id } });
      refresh('/api/spec-sheets');
      void navigate('/spec-sheets');
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  const freeId = (stem: string) => {
    const taken = new Set(draft.slots.map((s) => s.id));
    let n = 2;
    while (taken.has(`${stem}-${n}`)) n++;
    return `${stem}-${n}`;
  };
  const move = (by: number) => {
    const to = at + by;
    if (to < 0 || to >= draft.slots.length) return;
    const slots = [...draft.slots];
    [slots[at], slots[to]] = [slots[to], slots[at]];
    edit({ ...draft, slots });
    setAt(to);
  };

  return (
    <>
      <div className="border-line bg-card flex h-17 shrink-0 items-center gap-3 border-b px-5">
        <Link to="/spec-sheets" className="text-ink-2 hover:text-ink">
          Spec sheets
        </Link>
        <span className="text-ink-3">/</span>
        <h1 className="font-display truncate text-[20px] font-bold">{stored.marketplace}</h1>
        <Select
          label="Version"
          value={String(stored.version)}
          onChange={(v) => {
            const chosen = versions.find((x) => String(x.version) === v);
            if (chosen) edit({ ...chosen.sheet, version: stored.version });
          }}
          options={versions.map((v) => ({
            value: String(v.version),
            title: `version ${v.version}, ${new Date(v.createdAt).toLocaleDateString('en-GB')}`,
          }))}
        />
        {trouble && (
          <p role="alert" className="text-coral-ink line-clamp-2 min-w-0 grow text-[12px]">
            {trouble}
          </p>
        )}
        <div className="ml-auto flex gap-2">
          <Button
            disabled={!past.length}
            onClick={() => {
              setDraft(past[past.length - 1]);
              setPast((p) => p.slice(0, -1));
            }}
          >
            Undo
          </Button>
          <Button tone="danger" onClick={() => void remove()}>
            Remove
          </Button>
          <Button tone="main" disabled={!changed || !!trouble} onClick={() => void save()}>
            Save as version {stored.version + 1}
          </Button>
        </div>
      </div>
      <main className="flex min-h-0 grow">
        <nav aria-label="Slots" className="border-line bg-card flex w-60 shrink-0 flex-col border-r">
          <div className="grid gap-2 p-3">
            <TextField
              label="Marketplace"
              value={draft.marketplace}
              onCommit={(marketplace) => edit({ ...draft, marketplace })}
            />
            <TextField label="About" value={draft.about} onCommit={(about) => edit({ ...draft, about })} />
          </div>
          <ul className="border-line min-h-0 grow overflow-y-auto border-t">
            {draft.slots.map((s, i) => (
              <li key={i}>
                <button
                  type="button"
                  aria-current={tab === 'slot' && i === at}
                  onClick={() => {
                    setAt(i);
                    setTab('slot');
                  }}
                  className={`border-line flex w-full items-baseline justify-between gap-2 border-b px-3 py-1.5 text-left focus-visible:outline-offset-[-2px] ${tab === 'slot' && i === at ? 'bg-spruce-tint' : 'hover:bg-spruce-tint/50'}`}
                >
                  <span className="truncate font-medium">
                    {s.title}
                    {s.count > 1 && <span className="measure text-ink-2"> x{s.count}</span>}
                  </span>
                  <span className="measure text-ink-2 whitespace-nowrap">
                    {s.width}x{s.height}
                  </span>
                </button>
              </li>
            ))}
          </ul>
          <div className="border-line flex gap-1 border-t p-2">
            <IconButton
              label="Add a slot"
              onClick={() => {
                edit({
                  ...draft,
                  slots: [...draft.slots, { ...slot, id: freeId('slot'), title: 'New slot', count: 1 }],
                });
                setAt(draft.slots.length);
              }}
            >
              <Plus size={14} aria-hidden />
            </IconButton>
            <IconButton
              label="Copy this slot"
              onClick={() => {
                edit({
                  ...draft,
                  slots: [
                    ...draft.slots,
                    { ...slot, id: freeId(slot.id.replace(/-\d+$/, '')), title: `${slot.title}, copy` },
                  ],
                });
                setAt(draft.slots.length);
              }}
            >
              <Copy size={14} aria-hidden />
            </IconButton>
            <IconButton label="Earlier" disabled={at === 0} onClick={() => move(-1)}>
              <ArrowUp size={14} aria-hidden />
            </IconButton>
            <IconButton label="Later" disabled={at === draft.slots.length - 1} onClick={() => move(1)}>
              <ArrowDown size={14} aria-hidden />
            </IconButton>
            <IconButton
              label="Remove this slot"
              disabled={draft.slots.length === 1}
              onClick={() => {
                edit({ ...draft, slots: draft.slots.filter((s) => s !== slot) });
                setAt(Math.max(0, at - 1));
              }}
            >
              <Trash2 size={14} aria-hidden />
            </IconButton>
          </div>
          <button
            type="button"
            aria-current={tab === 'severity'}
            onClick={() => setTab('severity')}
            className={`border-line border-t px-3 py-2 text-left font-medium ${tab === 'severity' ? 'bg-spruce-tint' : 'hover:bg-spruce-tint/50'}`}
          >
            Severity of each check
          </button>
        </nav>
        <div className="min-w-0 grow overflow-y-auto px-6 py-4" tabIndex={0} aria-label="Rules">
          {tab === 'slot' ? (
            <SlotForm key={`${draft.id}-${at}`} slot={slot} onChange={setSlot} />
          ) : (
            <SeverityTable sheet={draft} onChange={(severity) => edit({ ...draft, severity })} />
          )}
        </div>
      </main>
    </>
  );
}

function SeverityTable({
  sheet,
  onChange,
}: {
  sheet: SpecSheet;
  onChange(severity: SpecSheet['severity']): void;
}) {
  return (
    <section className="max-w-xl">
      <h2 className="font-display text-[17px] font-bold">Severity of each check</h2>
      <p className="text-ink-2 mb-3">
        Whether a fault makes a check fail or is a warning is the check’s own judgement; here this marketplace
        may say otherwise.
      </p>
      <ul>
        {CHECK_TITLES.map(({ id, title }) => (
          <li key={id} className="border-line flex items-center justify-between border-b py-1">
            {title}
            <Select<'own' | Severity>
              label={title}
              className="w-44"
              value={sheet.severity[id] ?? 'own'}
              onChange={(v) => {
                const { [id]: _, ...others } = sheet.severity;
                onChange(v === 'own' ? others : { ...others, [id]: v });
              }}
              options={[
                { value: 'own', title: 'as the check judges' },
                { value: 'stop', title: 'failed' },
                { value: 'look', title: 'warning' },
                { value: 'off', title: 'off' },
              ]}
            />
          </li>
        ))}
      </ul>
    </section>
  );
}
