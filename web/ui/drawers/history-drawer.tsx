'use client';

import { Box, Flex, Heading, Text, chakra } from '@chakra-ui/react';
import { withRibbonOf } from '@maypole/core/explore/bring-back';
import { broughtBack, differences, type Difference } from '@maypole/core/explore/differences';
import type { Piece } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { Bookmark, Film, LayoutGrid, Undo2 } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import type { RevisionSummary } from '@/contract/pieces';
import { PictureButton, PlainButton, StrongButton } from '../parts/buttons';
import { awaitRender } from '../deliver/awaited';
import { lend } from '../deliver/lending';
import { startRender } from '../deliver/render-api';
import { tell, tellTrouble } from '../parts/toasts';
import { fileSize } from '../parts/words';
import { RevisionPicture } from '../explore/revision-picture';
import { whenWords } from '../explore/when-words';
import { keepAs, nameRevision, openPast, openSheetOf, tellKept, usePast, wantRevision } from '../explore/history-store';
import { openCompare } from '../compare/compare-store';
import { useEditor } from '../state/store';
import { DrawerFrame } from './drawer';

/** Rows described at first; more on request. */
const ROWS = 30;
const MOST_SAID = 60;

/** All saves and takes of the piece: view, name, and restore whole or in part. */
export function HistoryDrawer() {
  const id = useEditor((s) => s.id);
  const revision = useEditor((s) => s.revision);
  const list = usePast((s) => s.list);
  const bytes = usePast((s) => s.bytes);
  const picked = usePast((s) => s.picked);
  const [search, setSearch] = useState('');
  const [shown, setShown] = useState(ROWS);
  useEffect(() => {
    void openPast(id);
  }, [id, revision]);
  const takes = list?.filter((r) => r.aside && !r.sheet) ?? [];
  const sheets = list?.filter((r) => r.sheet) ?? [];
  const saves = list?.filter((r) => !r.aside && !r.sheet) ?? [];
  return (
    <DrawerFrame title="History" foot={<KeepNow />}>
      {list && (
        <Text fontSize="12px" color="muted" mb="2">
          {list.length} {list.length === 1 ? 'version' : 'versions'} in {fileSize(bytes)}. Saves thin out as they age;
          what has a name stays.
        </Text>
      )}
      {picked !== null && <Looked number={picked} />}
      {takes.length > 0 && (
        <>
          <Flex align="center">
            <Box flex="1">
              <Title>Takes</Title>
            </Box>
            <RenderTakes takes={takes} />
          </Flex>
          {takes.map((r) => (
            <Row key={r.number} revision={r} before={undefined} search={search} />
          ))}
        </>
      )}
      {sheets.length > 0 && (
        <>
          <Title>Sheets</Title>
          {sheets.map((r) => (
            <Row key={r.number} revision={r} before={undefined} search={search} />
          ))}
        </>
      )}
      <Title>Saves</Title>
      <chakra.input
        type="search"
        aria-label="Search the history"
        placeholder="Search by name or by what was changed"
        value={search}
        onChange={(e) => setSearch(e.target.value)}
        w="100%"
        h="28px"
        px="2"
        mb="1"
        fontSize="12.5px"
        borderRadius="field"
        bg="field"
      />
      {list === null && (
        <Text fontSize="12.5px" color="muted">
          Loading
        </Text>
      )}
      {/** Every row fetches its document: among thousands of saves only visible and named ones are searched. */}
      {saves.map((r, i) =>
        i < shown || (search && r.mark) ? (
          <Row key={r.number} revision={r} before={saves[i + 1]?.number} search={search} />
        ) : null,
      )}
      {saves.length > shown && (
        <PlainButton size="xs" mt="2" w="100%" onClick={() => setShown(shown + 2 * ROWS)}>
          Earlier ones: {saves.length - shown}
        </PlainButton>
      )}
    </DrawerFrame>
  );
}

/** Queues all takes, each with its own outputs. */
function RenderTakes({ takes }: { takes: readonly RevisionSummary[] }) {
  const id = useEditor((s) => s.id);
  const [busy, setBusy] = useState(false);
  const named = takes.filter((t) => t.mark);
  if (named.length === 0) return null;
  const render = async () => {
    setBusy(true);
    let begun = 0;
    for (const take of named)
      try {
        awaitRender(await startRender(id, take.number, false));
        begun++;
      } catch (error) {
        tellTrouble(`${take.mark}: ${error instanceof Error ? error.message : 'it could not be started.'}`);
      }
    // Those in quick light are drawn here.
    if (begun > 0) lend(false);
    if (begun > 0) tell(`${begun} ${begun === 1 ? 'take is' : 'takes are'} in the queue.`);
    setBusy(false);
  };
  return (
    <PlainButton size="xs" disabled={busy} title="Each with its own outputs" onClick={() => void render()}>
      <Film size={13} /> Render {named.length === 1 ? 'it' : `all ${named.length}`}
    </PlainButton>
  );
}

function Title({ children }: { children: string }) {
  return (
    <Heading as="h3" fontSize="12.5px" fontWeight="600" color="muted" mt="3" mb="1.5">
      {children}
    </Heading>
  );
}

/** Stores the present piece under a name. */
function KeepNow() {
  const [name, setName] = useState('');
  const keep = async () => {
    const { id, piece } = useEditor.getState();
    if (await keepAs(id, writePiece(piece), name.trim())) {
      tellKept(name.trim());
      setName('');
    }
  };
  return (
    <chakra.form
      display="flex"
      gap="2"
      onSubmit={(e) => {
        e.preventDefault();
        if (name.trim()) void keep();
      }}
    >
      <chakra.input
        aria-label="Name of the take"
        placeholder="Name of the take"
        value={name}
        maxLength={80}
        onChange={(e) => setName(e.target.value)}
        flex="1"
        minW="0"
        h="32px"
        px="2"
        fontSize="13px"
        borderRadius="field"
        bg="field"
      />
      <StrongButton type="submit" disabled={!name.trim()}>
        Keep a take
      </StrongButton>
    </chakra.form>
  );
}

function Row({ revision, before, search }: { revision: RevisionSummary; before: number | undefined; search: string }) {
  const id = useEditor((s) => s.id);
  const head = useEditor((s) => s.revision);
  const own = usePast((s) => s.pieces.get(revision.number));
  const older = usePast((s) => (before === undefined ? undefined : s.pieces.get(before)));
  const picked = usePast((s) => s.picked === revision.number);
  useEffect(() => {
    wantRevision(id, revision.number);
    if (before !== undefined) wantRevision(id, before);
  }, [id, revision.number, before]);
  const words = useMemo(() => {
    if (typeof own === 'string') return own;
    if (revision.sheet) return 'A sheet of variations';
    if (revision.aside) return revision.mark ? 'A take' : 'Kept beside: it was saved too late';
    if (before === undefined) return 'The first';
    return own && typeof older === 'object' ? saidShortly(differences(older, own)) : '…';
  }, [own, older, before, revision]);
  const text = `${revision.mark ?? ''} ${words}`.toLowerCase();
  if (search && !text.includes(search.toLowerCase())) return null;
  const name = revision.mark ?? (revision.number === head ? 'Now' : whenWords(revision.createdAt));
  return (
    <Flex
      align="center"
      gap="2"
      py="1.5"
      px="1"
      borderTopWidth="1px"
      borderColor="line"
      bg={picked ? 'field' : undefined}
      data-testid="revision"
    >
      <chakra.button
        type="button"
        aria-pressed={picked}
        aria-label={`Look at ${name}: ${words}`}
        display="flex"
        gap="2.5"
        flex="1"
        minW="0"
        alignItems="center"
        textAlign="left"
        onClick={() => usePast.setState({ picked: picked ? null : revision.number })}
      >
        <RevisionPicture piece={typeof own === 'object' ? own : null} />
        <Box flex="1" minW="0">
          <Flex gap="2" align="baseline">
            <Text fontSize="12.5px" fontWeight="600" truncate>
              {name}
            </Text>
            {revision.mark && (
              <Text fontSize="11.5px" color="muted" whiteSpace="nowrap">
                {whenWords(revision.createdAt)}
              </Text>
            )}
          </Flex>
          <Text fontSize="12px" color="muted" lineClamp={2}>
            {words}
          </Text>
        </Box>
      </chakra.button>
      {revision.sheet && (
        <PictureButton label={`Open ${name}`} onClick={() => void openSheetOf(id, revision.number)}>
          <LayoutGrid size={15} />
        </PictureButton>
      )}
      {(!revision.aside || revision.mark) && <MarkButton revision={revision} />}
    </Flex>
  );
}

/** A name keeps a save for good; without one it may be thinned out with age. */
function MarkButton({ revision }: { revision: RevisionSummary }) {
  const id = useEditor((s) => s.id);
  const [typed, setTyped] = useState<string | null>(null);
  const commit = () => {
    const name = typed?.trim() || null;
    // A take always has a name: it can be renamed, but not unnamed.
    if (typed !== null && name !== revision.mark && (name || !revision.aside))
      void nameRevision(id, revision.number, name);
    setTyped(null);
  };
  if (typed !== null)
    return (
      <chakra.input
        aria-label="Name of this save"
        autoFocus
        value={typed}
        maxLength={80}
        w="110px"
        h="26px"
        px="1.5"
        fontSize="12px"
        borderRadius="field"
        bg="raised"
        borderWidth="1px"
        borderColor="line"
        onChange={(e) => setTyped(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === 'Enter') commit();
          if (e.key === 'Escape') setTyped(null);
        }}
      />
    );
  return (
    <PictureButton
      label={revision.mark ? `Rename ${revision.mark}` : 'Name this save, so that it is kept for good'}
      onClick={() => setTyped(revision.mark ?? '')}
    >
      <Bookmark size={15} fill={revision.mark ? 'currentColor' : 'none'} />
    </PictureButton>
  );
}

/** The save being viewed: its differences from the present piece, and what can be restored. */
function Looked({ number }: { number: number }) {
  const now = useEditor((s) => s.piece);
  const old = usePast((s) => s.pieces.get(number));
  const row = usePast((s) => s.list?.find((r) => r.number === number));
  const said = useMemo(() => (typeof old === 'object' ? differences(now, old) : []), [now, old]);
  if (typeof old !== 'object' || !row) return null;
  const name = row.mark ?? whenWords(row.createdAt);
  const bring = (words: string, change: (piece: Piece) => Piece) => {
    useEditor.getState().edit(words, change);
    tell(`${words}.`, { label: 'Undo', onClick: () => useEditor.getState().undo() });
  };
  const ribbons = old.ribbons.filter((r) => {
    const own = now.ribbons.find((o) => o.id === r.id);
    return JSON.stringify(own) !== JSON.stringify(r);
  });
  return (
    <Box mb="2" p="3" borderRadius="card" borderWidth="1px" borderColor="lineStrong" bg="raised" data-testid="looked">
      <Flex gap="3">
        <RevisionPicture piece={old} large />
        <Box flex="1" minW="0">
          <Heading as="h3" fontFamily="heading" fontSize="14px" truncate>
            {name}
          </Heading>
          <Text fontSize="12px" color="muted">
            {said.length === 0
              ? 'As it is now'
              : `${said.length} ${said.length === 1 ? 'thing' : 'things'} differ from now`}
          </Text>
        </Box>
      </Flex>
      {said.length > 0 && (
        <>
          <Flex gap="2" mt="3">
            <PlainButton size="xs" flex="1" onClick={() => void openCompare(`save:${number}`)}>
              Compare
            </PlainButton>
            <StrongButton
              flex="1"
              size="xs"
              onClick={() => bring(`Brought back ${name}`, (p) => ({ ...old, name: p.name }))}
            >
              Bring all of it back
            </StrongButton>
          </Flex>
          {ribbons.length > 0 && now.ribbons.length + old.ribbons.length > 2 && (
            <Flex wrap="wrap" gap="1.5" mt="2">
              {ribbons.map((r) => (
                <PlainButton
                  key={r.id}
                  size="xs"
                  onClick={() => bring(`Brought back ${r.name}`, (p) => withRibbonOf(p, old, r.id))}
                >
                  {r.name} alone
                </PlainButton>
              ))}
            </Flex>
          )}
          <Box mt="2" maxH="230px" overflowY="auto">
            {said.slice(0, MOST_SAID).map((d, i) => (
              <Flex key={i} align="center" gap="2" py="1" borderTopWidth="1px" borderColor="line">
                <Box flex="1" minW="0">
                  <Text fontSize="12.5px" truncate title={`${d.what}, ${d.place}`}>
                    {d.what}
                    {d.place !== 'Piece' && !d.what.endsWith(d.place) && (
                      <chakra.span color="muted"> · {d.place}</chakra.span>
                    )}
                  </Text>
                  <Text fontSize="11.5px" fontFamily="mono" color="muted" truncate>
                    {thenWords(d)}
                  </Text>
                </Box>
                <PictureButton
                  label={`Bring back ${d.what}`}
                  onClick={() => bring(`Brought back ${d.what}`, (p) => broughtBack(p, old, d))}
                >
                  <Undo2 size={15} />
                </PictureButton>
              </Flex>
            ))}
          </Box>
        </>
      )}
    </Box>
  );
}

/** The earlier value of something, against the present one. */
function thenWords({ from, to }: Difference): string {
  if (from) return `${from} now, ${to} then`;
  return to === 'removed' ? 'not there then' : to === 'added' ? 'there then, and not now' : `${to} then`;
}

/** "Twist angle 40° → 90°", and how many more. */
function saidShortly(list: readonly Difference[]): string {
  if (list.length === 0) return 'No visible change';
  const [{ what, from, to }] = list;
  const more = list.length > 1 ? `, and ${list.length - 1} more` : '';
  return `${what} ${from ? `${from} → ${to}` : to}${more}`;
}
