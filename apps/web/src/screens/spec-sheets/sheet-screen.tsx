import type { AnswerOf } from '@scenograph/contract';
import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { readSpecSheet } from '@scenograph/core/spec/read-spec-sheet';
import type { Slot } from '@scenograph/core/spec/slot';
import { call, useRoute } from '../../api/client';
import { ConflictDialog, DocumentUndoRedo, SavingNote, useDocument } from '../../documents/document-bar';
import { storedSheet, type SheetDraft } from '../../documents/kinds';
import { useOpened } from '../../documents/use-opened';
import { Button, Select, TextField } from '../../ui/controls';
import { removing } from '../../ui/removing';
import { say } from '../../ui/notices';
import { Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { SeverityTable } from './severity-table';
import { sheetStore } from './sheet-store';
import { SlotForm } from './slot-form';
import { SlotList } from './slot-list';
import { msg, writeDay } from '../../language/language';

type SheetVersions = AnswerOf<'GET /api/spec-sheets/:sheet'>;

export function SheetScreen() {
  const { id = '' } = useParams();
  const { data, error } = useRoute('GET /api/spec-sheets/:sheet', { params: { sheet: id } });
  const stored = useMemo(() => data && storedSheet(data.sheet), [data]);
  const opened = useOpened(sheetStore, id, stored);
  const draft = sheetStore.use((s) => s.document);
  return (
    <>
      <TopBar />
      {error && <Trouble error={error} />}
      {!(data && opened) && !error && <Waiting what={msg('the spec sheet')} />}
      {data && opened && draft && <SheetEditor key={data.sheet.id} sheet={data} draft={draft} />}
    </>
  );
}

/** A sheet is changed as a draft and saved as its next version, so that a half-typed rule never stops a picture. */
function SheetEditor({ sheet, draft }: { sheet: SheetVersions; draft: SheetDraft }) {
  const state = sheetStore.use();
  const [at, setAt] = useState(0);
  const [tab, setTab] = useState<'slot' | 'severity'>('slot');
  useDocument(sheetStore.use.getState, sheetStore.save);
  const edit = (label: string, part: Partial<SheetDraft>) => state.edit(label, (d) => ({ ...d, ...part }));
  const here = Math.min(at, draft.slots.length - 1);
  const slot = draft.slots[here];
  const setSlot = (patch: Partial<Slot>) =>
    edit(msg('Change {slot}', { slot: slot.title }), {
      slots: draft.slots.map((s) => (s === slot ? { ...s, ...patch } : s)),
    });
  return (
    <>
      <SheetHeader sheet={sheet} draft={draft} edit={edit} />
      <main className="flex min-h-0 grow">
        <nav aria-label={msg('Slots')} className="border-line bg-card flex w-60 shrink-0 flex-col border-r">
          <div className="grid gap-2 p-3">
            <TextField
              label={msg('Marketplace')}
              value={draft.marketplace}
              onCommit={(marketplace) => edit(msg('Marketplace'), { marketplace })}
            />
            <TextField
              label={msg('About')}
              value={draft.about}
              onCommit={(about) => edit(msg('About'), { about })}
            />
          </div>
          <SlotList
            slots={draft.slots}
            at={tab === 'slot' ? here : null}
            onChoose={(i) => {
              setAt(i);
              setTab('slot');
            }}
            onChange={(label, slots, to) => {
              edit(label, { slots });
              setAt(to);
            }}
          />
          <button
            type="button"
            aria-current={tab === 'severity'}
            onClick={() => setTab('severity')}
            className={`border-line border-t px-3 py-2 text-left font-medium ${tab === 'severity' ? 'bg-spruce-tint' : 'hover:bg-spruce-tint/50'}`}
          >
            {msg('Severity of each check')}
          </button>
        </nav>
        <div className="min-w-0 grow overflow-y-auto px-6 py-4" tabIndex={0} aria-label={msg('Rules')}>
          {tab === 'slot' ? (
            <SlotForm key={`${draft.id}-${here}`} slot={slot} onChange={setSlot} />
          ) : (
            <SeverityTable sheet={draft} onChange={(severity) => edit(msg('Severity'), { severity })} />
          )}
        </div>
      </main>
      <ConflictDialog of={state} word={msg('spec sheet')} />
    </>
  );
}

/** Why a draft cannot be stored; '' where it can. */
function faultOf(draft: SheetDraft): string {
  try {
    readSpecSheet({ ...draft, version: 1 });
    return '';
  } catch (e) {
    return (e as Error).message;
  }
}

function SheetHeader({
  sheet: { sheet: stored, versions },
  draft,
  edit,
}: {
  sheet: SheetVersions;
  draft: SheetDraft;
  edit(label: string, part: Partial<SheetDraft>): void;
}) {
  const state = sheetStore.use();
  const navigate = useNavigate();
  const fault = useMemo(() => faultOf(draft), [draft]);
  const save = async () => {
    if (await sheetStore.save())
      say(
        'pass',
        msg('Saved as version {revision}. Boards show what no longer passes.', {
          revision: sheetStore.use.getState().revision,
        }),
      );
  };
  const remove = async () => {
    const ask = call(
      'DELETE /api/spec-sheets/:sheet',
      { params: { sheet: stored.id } },
      { revision: stored.version },
    );
    if (await removing(ask, `"${stored.marketplace}"`, '/api/spec-sheets')) void navigate('/spec-sheets');
  };
  const takeVersion = (v: string) => {
    const chosen = versions.find((x) => String(x.version) === v);
    if (!chosen) return;
    const { version: _, ...earlier } = chosen.sheet;
    edit(msg('Take version {v}', { v }), earlier);
  };
  return (
    <div className="border-line bg-card flex h-17 shrink-0 items-center gap-3 border-b px-5">
      <Link to="/spec-sheets" className="text-ink-2 hover:text-ink">
        {msg('Spec sheets')}
      </Link>
      <span className="text-ink-3">/</span>
      <h1 className="font-display truncate text-[20px] font-bold">{stored.marketplace}</h1>
      <Select
        label={msg('Version')}
        value={String(stored.version)}
        onChange={takeVersion}
        options={versions.map((v) => ({
          value: String(v.version),
          title: msg('version {version}, {day}', {
            version: v.version,
            day: writeDay(v.createdAt),
          }),
        }))}
      />
      <SavingNote of={state} onTryAgain={() => void save()} />
      {fault && (
        <p role="alert" className="text-coral-ink line-clamp-2 min-w-0 grow text-[12px]">
          {fault}
        </p>
      )}
      <div className="ml-auto flex gap-2">
        <DocumentUndoRedo of={state} />
        <Button tone="danger" onClick={() => void remove()}>
          {msg('Remove')}
        </Button>
        <Button tone="main" disabled={state.saving === 'saved' || !!fault} onClick={() => void save()}>
          {msg('Save as version {revision}', { revision: state.revision + 1 })}
        </Button>
      </div>
    </div>
  );
}
