import { Box, Text } from '@chakra-ui/react';
import { fileSize } from '../parts/words';
import type { RoomUsed } from '@/contract/room';

/** How much of the storage is used. */
export function RoomBar({ room }: { room: RoomUsed }) {
  const share = Math.min(1, room.bytes / room.mostBytes);
  return (
    <>
      <Box
        h="8px"
        bg="fill"
        borderRadius="4px"
        overflow="hidden"
        role="img"
        aria-label={`${Math.round(share * 100)} % of the room is used`}
      >
        <Box h="100%" bg={share > 0.9 ? 'poppy' : 'leaf'} style={{ width: `${Math.max(0.5, share * 100)}%` }} />
      </Box>
      <Text fontSize="13px" mt="2">
        {fileSize(room.bytes)} of {fileSize(room.mostBytes)}
      </Text>
      <Text fontSize="12.5px" color="muted" mt="1">
        {room.pieces} pieces, {room.binned} of them in the bin, with {room.revisions} saves;{' '}
        {room.files === 0 ? 'no files' : `${room.files} files with ${fileSize(room.fileBytes)}`}.
      </Text>
    </>
  );
}
