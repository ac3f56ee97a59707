'use client';

import { chakra, Text } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { tellTrouble } from '../parts/toasts';
import { readTrail, type TrailRow } from './people-api';

const moment = (text: string) =>
  new Date(text).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });

/** The audit log, latest first; reloaded after each action on the page. */
export function Trail({ after }: { after: unknown }) {
  const [rows, setRows] = useState<readonly TrailRow[]>();
  useEffect(() => {
    let isLate = false;
    readTrail().then(
      // An answer that was asked for before the last action does not know of it.
      (now) => !isLate && setRows(now),
      (error: Error) => !isLate && tellTrouble(error.message),
    );
    return () => void (isLate = true);
  }, [after]);
  if (!rows) return <Text color="muted">…</Text>;
  if (rows.length === 0) return <Text color="muted">Nothing yet.</Text>;
  return (
    <chakra.table w="100%" fontSize="12.5px">
      <thead>
        <tr>
          {['When', 'Who', 'What', 'From'].map((h) => (
            <chakra.th key={h} textAlign="left" color="muted" fontWeight="600" pb="1">
              {h}
            </chakra.th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => (
          <chakra.tr key={r.id} borderTopWidth="1px" borderColor="line">
            <chakra.td py="1" pr="3" whiteSpace="nowrap" fontVariantNumeric="tabular-nums">
              {moment(r.lastAt)}
            </chakra.td>
            <chakra.td pr="3">{r.whoName}</chakra.td>
            <chakra.td pr="3">
              {r.what}
              {r.times > 1 && ` (${r.times} times)`} <chakra.span color="muted">{r.on.slice(0, 40)}</chakra.span>
            </chakra.td>
            <chakra.td fontFamily="mono" fontSize="11.5px">
              {r.client}
            </chakra.td>
          </chakra.tr>
        ))}
      </tbody>
    </chakra.table>
  );
}
