import { Box, Button, Flex, Heading, Image, Input } from '@chakra-ui/react';
import type { PhotographRow } from '@zero-lash/contract/photographs';
import { stageOf, type StageKey } from '@zero-lash/core/builds';
import { Labelled } from '../app/Labelled.tsx';
import { RefusedNotes } from '../app/RefusedNotes.tsx';
import { useAppSelector } from '../app/store.ts';
import type { BuildView } from '../builds/buildView.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { ShopTime } from '../app/ShopTime.tsx';
import { useRole } from '../app/useRole.ts';
import { useKeptText } from '../app/useKeptText.ts';
import { AddPhotograph } from './AddPhotograph.tsx';

interface Props {
  readonly build: BuildView;
  readonly stage: StageKey;
  /** what is usually photographed here, as a hint */
  readonly hint?: string;
}

/** Photographs of a stage: taken here, kept on the device until they are sent, shown small with what they are of. */
export function Photographs({ build, stage, hint = 'a place, a part' }: Props) {
  const put = useBenchWrite(build.id);
  const { mayWork } = useRole();
  const [about, setAbout] = useKeptText(`photograph:${build.id}:${stage}`);
  const enabled = mayWork && !build.closedAt;
  const rows = build.photographs.filter((row) => row.stage === stage && !row.dropped);

  if (!enabled && rows.length === 0) return null;
  return (
    <Box as="section" aria-label={`Photographs at ${stageOf(stage).title}`}>
      <Heading as="h3" fontSize="md" fontWeight="650">
        Photographs
      </Heading>
      <Flex gap="3" flexWrap="wrap" marginTop="1">
        {rows.map((row) => (
          <Photograph
            key={row.id}
            row={row}
            onDrop={
              enabled ? () => put({ kind: 'photograph-dropped', id: row.id, body: { dropped: true } }) : null
            }
          />
        ))}
      </Flex>
      {enabled && (
        <Flex gap="2" alignItems="flex-end" marginTop="2" flexWrap="wrap">
          <Box width="260px">
            <Labelled label="The next one is of">
              <Input
                value={about}
                maxLength={40}
                placeholder={hint}
                onChange={({ target }) => setAbout(target.value)}
              />
            </Labelled>
          </Box>
          <AddPhotograph
            buildId={build.id}
            of={{ stage, about: about.trim(), shows: '' }}
            label={`Photograph at ${stageOf(stage).title}`}
            onAdded={() => setAbout('')}
          >
            Add a photograph
          </AddPhotograph>
        </Flex>
      )}
      <RefusedNotes buildId={build.id} which={({ kind }) => kind.startsWith('photograph')} />
    </Box>
  );
}

/** The photographs of one damage, with a way to take another. */
export function PhotographsOf({ build, stage, shows, about }: PhotographsOfProps) {
  const put = useBenchWrite(build.id);
  const { mayWork } = useRole();
  const enabled = mayWork && !build.closedAt;
  const rows = build.photographs.filter((row) => row.shows === shows && !row.dropped);
  return (
    <Flex gap="3" flexWrap="wrap" alignItems="flex-start">
      {rows.map((row) => (
        <Photograph
          key={row.id}
          row={row}
          onDrop={
            enabled ? () => put({ kind: 'photograph-dropped', id: row.id, body: { dropped: true } }) : null
          }
        />
      ))}
      {enabled && (
        <AddPhotograph buildId={build.id} of={{ stage, about, shows }} label={`Photograph of ${about}`} plain>
          {rows.length > 0 ? 'Photograph it again' : 'Photograph it'}
        </AddPhotograph>
      )}
    </Flex>
  );
}

interface PhotographsOfProps {
  readonly build: BuildView;
  readonly stage: StageKey;
  /** the damage, by the name that keeps it on the wear sheet */
  readonly shows: string;
  readonly about: string;
}

interface PhotographProps {
  readonly row: PhotographRow;
  readonly onDrop: (() => void) | null;
}

function Photograph({ row, onDrop }: PhotographProps) {
  const { id, about, by, at } = row;
  // base64 of the file, where it is not sent yet
  const picture = useAppSelector(
    ({ outbox }) => (outbox.items.find(({ key }) => key === id)?.body as { file?: string } | undefined)?.file,
  );
  const address = picture ? `data:;base64,${picture}` : `/api/photographs/${id}`;
  return (
    <Box as="figure" width="180px" margin="0">
      <a href={address} target="_blank" rel="noreferrer">
        <Image
          src={address}
          alt={about || 'photograph'}
          width="180px"
          height="130px"
          objectFit="cover"
          loading="lazy"
          background="wash"
        />
      </a>
      <Box as="figcaption" fontSize="sm">
        {about && <b>{about} · </b>}
        {by}, <ShopTime at={at} />
        {picture && ', waiting to be sent'}
        {onDrop && !picture && (
          <Button
            variant="plain"
            paddingX="1"
            aria-label={`Take ${about || 'the photograph'} away`}
            onClick={onDrop}
          >
            Take away
          </Button>
        )}
      </Box>
    </Box>
  );
}
