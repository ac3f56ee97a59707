'use client';

import { Button, IconButton, type ButtonProps, type IconButtonProps } from '@chakra-ui/react';
import { forwardRef } from 'react';

/** An icon button; `label` is its accessible name, also shown on hover. */
export const PictureButton = forwardRef<HTMLButtonElement, Omit<IconButtonProps, 'aria-label'> & { label: string }>(
  function PictureButton({ label, ...rest }, ref) {
    return (
      <IconButton
        ref={ref}
        aria-label={label}
        title={label}
        size="xs"
        variant="plain"
        color="ink"
        borderRadius="field"
        _hover={{ bg: 'field' }}
        _disabled={{ opacity: 0.35, _hover: { bg: 'transparent' } }}
        {...rest}
      />
    );
  },
);

/** The primary button of a place. */
export const StrongButton = forwardRef<HTMLButtonElement, ButtonProps>(function StrongButton(props, ref) {
  return (
    <Button
      ref={ref}
      size="sm"
      bg="ink"
      color="inverse"
      borderRadius="8px"
      fontWeight="600"
      _hover={{ opacity: 0.88 }}
      {...props}
    />
  );
});

/** Any other button. */
export const PlainButton = forwardRef<HTMLButtonElement, ButtonProps>(function PlainButton(props, ref) {
  return (
    <Button
      ref={ref}
      size="sm"
      bg="raised"
      color="ink"
      borderWidth="1px"
      borderColor="line"
      borderRadius="8px"
      fontWeight="500"
      _hover={{ borderColor: 'lineStrong' }}
      {...props}
    />
  );
});
