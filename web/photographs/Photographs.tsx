import { Box, Button, Flex, Heading, Image, Input } from '@chakra-ui/react';
import { MOST_PHOTO_BYTES, type PhotographRow } from '@zero-lash/contract/photographs';
import { stageOf, type StageKey } from '@zero-lash/core/builds';
import { useRef, useState } from 'react';
import { Labelled } from '../app/Labelled.tsx';
import { Note } from '../app/Note.tsx';
import { RefusedNotes } from '../app/RefusedNotes.tsx';
import { useAppSelector } from '../app/store.ts';
import type { BuildView } from '../builds/buildView.ts';
import { useBenchWrite } from '../builds/useBenchWrite.ts';
import { ShopTime } from '../people/ShopTime.tsx';
import { useRole } from '../people/useRole.ts';
import { base64Of, madeSmaller, whyNoPicture } from './picture.ts';

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
  const input = useRef<HTMLInputElement>(null);
  const [about, setAbout] = useState('');
  const [complaint, setComplaint] = useState<string | null>(null);
  const enabled = mayWork && !build.closedAt;
  const rows = build.photographs.filter((row) => row.stage === stage && !row.dropped);
  const unsent = useAppSelector((state) => state.outbox.items);

  async function add(file: File) {
    setComplaint(null);
    if (file.size > MOST_PHOTO_BYTES)
      return setComplaint(`${file.name} is larger than 12 MB: take it smaller, and send it again.`);
    const why = whyNoPicture(new Uint8Array(await file.slice(0, 16).arrayBuffer()));
    if (why) return setComplaint(`${file.name} ${why}.`);
    const bytes = await madeSmaller(file).catch(() => null);
    if (!bytes) return setComplaint(`${file.name} is damaged: it begins like a picture, and is none.`);
    put({ kind: 'photograph', body: { stage, about: about.trim(), note: '', file: base64Of(bytes) } });
    setAbout('');
    return undefined;
  }

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
            picture={
              (unsent.find(({ key }) => key === row.id)?.body as { file?: string } | undefined)?.file ?? null
            }
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
          <Button onClick={() => input.current?.click()}>Add a photograph</Button>
        </Flex>
      )}
      <input
        ref={input}
        type="file"
        accept="image/png,image/jpeg,image/webp"
        hidden
        aria-label={`Photograph at ${stageOf(stage).title}`}
        onChange={({ target }) => {
          const [file] = target.files ?? [];
          if (file) void add(file);
          target.value = '';
        }}
      />
      {complaint && (
        <Note tone="tight" role="alert" marginTop="2">
          {complaint}
        </Note>
      )}
      <RefusedNotes buildId={build.id} which={({ kind }) => kind.startsWith('photograph')} />
    </Box>
  );
}

interface PhotographProps {
  readonly row: PhotographRow;
  /** base64 of the file, where it is not sent yet */
  readonly picture: string | null;
  readonly onDrop: (() => void) | null;
}

function Photograph({ row, picture, onDrop }: PhotographProps) {
  const { id, about, by, at } = row;
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
