'use client';

import { Flex, Link } from '@chakra-ui/react';
import { LogOut, Users } from 'lucide-react';
import NextLink from 'next/link';
import { useRouter } from 'next/navigation';
import type { Viewer } from '@/contract/person';
import { PictureButton } from '../parts/buttons';
import { tellTrouble } from '../parts/toasts';
import { leave } from './people-api';

/** Whether the viewer may edit pieces. */
export function mayEdit({ person }: Viewer): boolean {
  return person.role !== 'look';
}

/** The viewer's account, people for owners, and signing out; nothing if only this machine is served. */
export function PersonLinks({ viewer }: { viewer: Viewer }) {
  const router = useRouter();
  if (!viewer.open) return null;
  const out = () =>
    leave().then(
      () => router.push('/enter'),
      (error: Error) => tellTrouble(error.message),
    );
  return (
    <Flex align="center" gap="1" pl="2" borderLeftWidth="1px" borderColor="line">
      {viewer.person.role === 'own' && (
        <PictureButton label="People, keys and what was done" asChild>
          <NextLink href="/people">
            <Users size={17} />
          </NextLink>
        </PictureButton>
      )}
      <Link
        href="/account"
        title="Your account: password, codes, where you are signed in"
        fontSize="13px"
        color="muted"
        maxW="120px"
        truncate
        px="1"
        _hover={{ color: 'ink' }}
      >
        {viewer.person.name}
      </Link>
      <PictureButton label="Sign out" onClick={() => void out()}>
        <LogOut size={16} />
      </PictureButton>
    </Flex>
  );
}
