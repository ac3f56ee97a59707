'use client';

import { Box, chakra, Flex, Text } from '@chakra-ui/react';
import { mergePieces, type MergeConflict, type Side } from '@maypole/core/piece/merge';
import type { Piece } from '@maypole/core/piece/piece';
import { readPiece } from '@maypole/core/piece/read';
import { useEffect, useState } from 'react';
import { loadPiece, loadRevision } from '../api';
import { useEditor } from '../state/store';

/** The merge of a conflict's two versions, and the revision that it continues from. */
export interface Merge {
  readonly piece: Piece;
  readonly head: number;
  readonly conflicts: readonly MergeConflict[];
}

interface Offer {
  readonly merged: Merge | null;
  /** Which version wins where both changed the same value. */
  readonly prefer: Side;
  readonly setPrefer: (side: Side) => void;
}

const document = (source: string): Piece | null => {
  const read = readPiece(source);
  return read.ok ? read.piece : null;
};

/** Merges the versions of a conflict; null while computing, or if it is impossible. */
export function useMerge(): Offer {
  const conflict = useEditor((s) => s.conflict);
  const [versions, setVersions] = useState<{ base: Piece; mine: Piece; theirs: Piece; head: number } | null>(null);
  const [prefer, setPrefer] = useState<Side>('mine');
  const [merged, setMerged] = useState<Merge | null>(null);

  useEffect(() => {
    setVersions(null);
    if (!conflict) return;
    let left = false;
    const { id } = useEditor.getState();
    void Promise.all([loadRevision(id, conflict.basedOn), loadRevision(id, conflict.kept), loadPiece(id)]).then(
      ([base, mine, head]) => {
        const [b, m, t] = [base, mine, head].map(({ source }) => document(source));
        if (!left && b && m && t) setVersions({ base: b, mine: m, theirs: t, head: head.revision });
      },
      // One of them was thinned out, or the server is away: the other choices remain.
      () => undefined,
    );
    return () => void (left = true);
  }, [conflict]);

  useEffect(() => {
    const found = versions && mergePieces(versions.base, versions.mine, versions.theirs, prefer);
    setMerged(found?.ok ? { piece: found.piece, conflicts: found.conflicts, head: versions!.head } : null);
  }, [versions, prefer]);

  return { merged, prefer, setPrefer };
}

/** What the merge changes, and where both changed the same. */
export function MergeWords({ merge: { merged, prefer, setPrefer } }: { readonly merge: Offer }) {
  if (!merged) return null;
  const { conflicts } = merged;
  if (conflicts.length === 0)
    return (
      <Text mt="3" lineHeight="1.55">
        You changed different things, so both can be brought together: your values and theirs.
      </Text>
    );
  return (
    <Box mt="3">
      <Text lineHeight="1.55">
        Both can be brought together. {conflicts.length === 1 ? 'One thing was' : `${conflicts.length} things were`}{' '}
        changed by both.
      </Text>
      <Flex role="radiogroup" aria-label="Where both changed the same, keep" gap="4" my="1.5" align="center">
        <Text>Where both changed the same, keep</Text>
        {(['mine', 'theirs'] as const).map((side) => (
          <chakra.label key={side} display="flex" gap="1.5" alignItems="center" cursor="pointer">
            <input
              type="radio"
              name="prefer"
              style={{ accentColor: 'var(--chakra-colors-ink)' }}
              checked={prefer === side}
              onChange={() => setPrefer(side)}
            />
            {side}
          </chakra.label>
        ))}
      </Flex>
      <Box maxH="180px" overflowY="auto" borderWidth="1px" borderColor="line" borderRadius="8px" fontSize="13px">
        <chakra.table w="100%">
          <thead>
            <tr>
              {['', 'Mine', 'Theirs'].map((head) => (
                <chakra.th key={head} textAlign="left" px="2.5" py="1" color="muted" fontWeight="500">
                  {head}
                </chakra.th>
              ))}
            </tr>
          </thead>
          <tbody>
            {conflicts.slice(0, 200).map((c, i) => (
              <chakra.tr key={i} borderTopWidth="1px" borderColor="line">
                <chakra.td px="2.5" py="1">
                  {c.place}: {c.what}
                </chakra.td>
                <chakra.td px="2.5" py="1" fontWeight={prefer === 'mine' ? '600' : '400'}>
                  {c.mine}
                </chakra.td>
                <chakra.td px="2.5" py="1" fontWeight={prefer === 'theirs' ? '600' : '400'}>
                  {c.theirs}
                </chakra.td>
              </chakra.tr>
            ))}
          </tbody>
        </chakra.table>
      </Box>
    </Box>
  );
}
