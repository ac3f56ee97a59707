import { Box, chakra, Text } from '@chakra-ui/react';
import { useId, type ComponentProps } from 'react';

/** A text input with its label above. */
export function LineField({
  label,
  help,
  onValue,
  ...rest
}: { label: string; help?: string; onValue: (value: string) => void } & Omit<
  ComponentProps<typeof chakra.input>,
  'onChange'
>) {
  const id = useId();
  return (
    <Box>
      <chakra.label htmlFor={id} fontSize="13px" fontWeight="600">
        {label}
      </chakra.label>
      <chakra.input
        id={id}
        aria-describedby={help ? `${id}-help` : undefined}
        w="100%"
        h="34px"
        px="2.5"
        mt="1"
        bg="field"
        color="ink"
        borderRadius="8px"
        fontSize="14px"
        onChange={(e) => onValue(e.target.value)}
        {...rest}
      />
      {help && (
        <Text id={`${id}-help`} fontSize="12px" color="muted" mt="1">
          {help}
        </Text>
      )}
    </Box>
  );
}
