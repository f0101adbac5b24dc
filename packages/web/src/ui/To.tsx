import { Link as Base, type LinkProps } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';

/** A way to another screen. */
export const To = ({
  to,
  children,
  title,
  ...rest
}: { to: string; children: ReactNode; title?: string } & Omit<LinkProps, 'href' | 'children' | 'title'>) => (
  <Base asChild {...rest}>
    <Link to={to} title={title}>
      {children}
    </Link>
  </Base>
);
