'use client';

import { Box, Flex, Grid, Heading, Text, chakra } from '@chakra-ui/react';
import type { Param } from '@maypole/core/declare/params';
import { exampleOf, hasExample } from '@maypole/core/guide/examples';
import { guidePage, type Article } from '@maypole/core/guide/pages';
import { words } from '@maypole/core/guide/words';
import { exampleLine } from '@maypole/core/say/example-line';
import { writePiece } from '@maypole/core/piece/read';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { createPiece } from '../api';
import { PlainButton } from '../parts/buttons';
import { tellTrouble } from '../parts/toasts';
import { ExamplePicture } from './example-picture';
import { GuideFrame } from './guide-frame';

/** A page of the guide generated from declarations. */
export function GuidePageOf({ id }: { id: string }) {
  // Declarations contain functions, which cannot be sent to the client: the page looks its own up.
  const page = guidePage(id);
  if (!page) return null;
  return (
    <GuideFrame at={`/guide/${page.id}`}>
      <Heading as="h1" fontFamily="heading" fontSize="27px" fontWeight="700">
        {page.title}
      </Heading>
      <Text color="muted" mt="1" mb="5">
        {page.help}
      </Text>
      {page.articles.map((article) => (
        <Section key={article.id} article={article} said={!UNSAID.has(page.id)} />
      ))}
    </GuideFrame>
  );
}

/** Pages whose things a line does not add. */
const UNSAID = new Set(['motion', 'noise', 'patterns', 'cameras', 'outputs', 'lines']);

/** Values shown at first; the others unfold. */
const FIRST = 4;

function Section({ article, said }: { article: Article; said: boolean }) {
  const { id, title, help, params, example } = article;
  const shown = example && hasExample(example) ? example : null;
  const rows = Object.entries(params);
  const lines = article.lines ?? (said ? [exampleLine(article)].filter((l) => l !== null) : []);
  return (
    <Box as="section" id={id} aria-label={title} py="5" borderTopWidth="1px" borderColor="line" scrollMarginTop="60px">
      <Grid templateColumns={shown ? { base: '1fr', sm: '180px minmax(0, 1fr)' } : '1fr'} gap="5">
        {shown && (
          <Box>
            <ExamplePicture kind={shown} label={`${title}, an example, playing`} />
            <OpenExample kind={shown} title={title} />
          </Box>
        )}
        <Box minW="0">
          <Heading as="h2" fontFamily="heading" fontSize="18px" fontWeight="700">
            {title}
          </Heading>
          <Text mt="0.5" lineHeight="1.55" maxW="640px">
            {help}
          </Text>
          {lines.map((line) => (
            <chakra.code
              key={line}
              display="block"
              w="fit-content"
              mt="1.5"
              px="2"
              py="0.5"
              borderRadius="6px"
              bg="raised"
              borderWidth="1px"
              borderColor="line"
              fontFamily="mono"
              fontSize="12.5px"
            >
              {line}
            </chakra.code>
          ))}
          <Values params={rows.slice(0, FIRST)} />
          {rows.length > FIRST && (
            <chakra.details mt="1.5">
              <chakra.summary fontSize="13px" color="muted" cursor="pointer">
                {rows.length - FIRST} more {rows.length - FIRST === 1 ? 'value' : 'values'}
              </chakra.summary>
              <Values params={rows.slice(FIRST)} />
            </chakra.details>
          )}
        </Box>
      </Grid>
    </Box>
  );
}

function Values({ params }: { params: readonly (readonly [string, Param])[] }) {
  if (params.length === 0) return null;
  return (
    <Box as="dl" mt="2">
      {params.map(([name, p]) => (
        <Flex key={name} gap="3" py="1" borderTopWidth="1px" borderColor="line" fontSize="13px">
          <Box as="dt" w="150px" flexShrink={0} fontWeight="500">
            {p.title}
          </Box>
          <Box as="dd" color="muted" lineHeight="1.5">
            {p.help} {choicesOf(p)}
          </Box>
        </Flex>
      ))}
    </Box>
  );
}

function choicesOf(p: Param): string {
  return p.type === 'choice' ? `${p.options.map((o) => o.title).join(', ')}.` : '';
}

function OpenExample({ kind, title }: { kind: string; title: string }) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const open = async () => {
    setBusy(true);
    try {
      const { id } = await createPiece(writePiece(exampleOf(kind)));
      router.push(`/piece/${id}`);
    } catch (error) {
      tellTrouble(error instanceof Error ? error.message : 'The example could not be opened.');
      setBusy(false);
    }
  };
  return (
    <PlainButton
      mt="2"
      size="xs"
      w="100%"
      disabled={busy}
      aria-label={`Open the example of ${title} as a piece`}
      onClick={() => void open()}
    >
      Open as a piece
    </PlainButton>
  );
}

/** The words of Maypole, explained. */
export function GuideWords() {
  return (
    <GuideFrame at="/guide/words">
      <Heading as="h1" fontFamily="heading" fontSize="27px" fontWeight="700" mb="4">
        Words
      </Heading>
      <Box as="dl" maxW="720px">
        {words.map(({ word, text }) => (
          <Flex
            key={word}
            id={word.toLowerCase().replace(/\W+/g, '-')}
            gap="4"
            py="2"
            borderTopWidth="1px"
            borderColor="line"
          >
            <Box as="dt" w="130px" flexShrink={0} fontWeight="600" fontSize="13.5px">
              {word}
            </Box>
            <Box as="dd" fontSize="13.5px" lineHeight="1.55">
              {text}
            </Box>
          </Flex>
        ))}
      </Box>
    </GuideFrame>
  );
}
