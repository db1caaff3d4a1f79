import { Box, Heading } from '@chakra-ui/react';
import { useEffect, type ReactNode } from 'react';

interface Props {
  readonly title: string;
  readonly under?: ReactNode;
  readonly actions?: ReactNode;
  readonly children: ReactNode;
}

/** A page of the drawing: its title, what stands under it, and what can be done at the top right. */
export function Page({ title, under, actions, children }: Props) {
  useEffect(() => {
    document.title = `${title} · Zero Lash`;
  }, [title]);
  return (
    <div className="page">
      <header className="page-head">
        <div>
          <h1>{title}</h1>
          {under && <div className="page-under">{under}</div>}
        </div>
        {actions && <div className="page-actions">{actions}</div>}
      </header>
      {children}
    </div>
  );
}

/** The heading of a part of a page. */
export function PartHeading({ children }: { readonly children: ReactNode }) {
  return (
    <Heading as="h2" fontSize="lg" fontWeight="650" marginBottom="2">
      {children}
    </Heading>
  );
}

/** What an empty place says: what to do first. */
export function Empty({ children }: { readonly children: ReactNode }) {
  return (
    <Box color="faded" border="1px dashed" borderColor="hairline" padding="4">
      {children}
    </Box>
  );
}
