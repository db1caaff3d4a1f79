import { Box, Button, Flex, Input } from '@chakra-ui/react';
import type { BuildView } from '@zero-lash/contract/builds';
import type { ReadingRow } from '@zero-lash/contract/measuring';
import { meansFor } from '@zero-lash/core/sheets';
import { useState } from 'react';
import { Labelled } from '../app/Labelled.tsx';
import { useLengths } from '../app/lengths.ts';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useAddSettingMutation } from '../builds/endpoints.ts';
import { FitForm } from './FitForm.tsx';
import type { LimitedPoint } from '../builds/points.ts';
import { TurnForm } from './TurnForm.tsx';

interface Props {
  readonly build: BuildView;
  readonly point: LimitedPoint;
  /** what the point is set by; nothing where it was changed since, or where the reading proves nothing */
  readonly reading: ReadingRow | undefined;
  /** it was measured before it was last changed, and not since */
  readonly stale: boolean;
  readonly target: number;
  readonly onNext: () => void;
}

/** What to fit or how far to turn at a point, and where what was done is written down. */
export function SettingForm({ build, point, reading, stale, target, onNext }: Props) {
  const means = meansFor(build.sheet.pattern, point.role);
  const turned = means.kind === 'screw' || means.kind === 'pivot-nut';
  const done = build.settings.find((setting) => setting.point === point.key);
  const { length } = useLengths();
  const [leaving, setLeaving] = useState(false);
  const [send, { error, isLoading }] = useAddSettingMutation();
  const record = async (setting: Omit<Parameters<typeof send>[0], 'buildId' | 'point'>) => {
    const result = await send({ ...setting, buildId: build.id, point: point.key });
    if (!('error' in result)) onNext();
  };
  return (
    <Box marginTop="4" borderTop="1px solid" borderColor="hairline" paddingTop="3">
      {done && (
        <Box marginBottom="3">
          Written down:{' '}
          <b>
            {done.kind === 'turned' &&
              (done.degrees === null || done.degrees === 0
                ? 'turned'
                : `${done.degrees > 0 ? 'loosened' : 'tightened'} ${Math.abs(done.degrees)}°`)}
            {done.kind === 'fitted' && `${length(done.installed!)} out, ${length(done.fitted!)} in`}
            {done.kind === 'left' && `left alone: ${done.note}`}
          </b>{' '}
          by {done.by}. Writing again supersedes it.
          {stale && (
            <Box>
              {done.kind === 'fitted' ? `${length(done.fitted!)} is in, and` : 'It'} was not measured since:
              it is proved at the next stage, and set again from what is found there.
            </Box>
          )}
        </Box>
      )}
      {turned ? (
        <TurnForm
          means={means}
          point={point}
          reading={reading}
          stale={stale}
          target={target}
          loading={isLoading}
          onRecord={record}
        />
      ) : (
        <FitForm
          means={means}
          point={point}
          reading={reading}
          stale={stale}
          target={target}
          loading={isLoading}
          installed={done?.fitted ?? null}
          onRecord={record}
        />
      )}
      <ProblemNote error={error} />
      {leaving ? (
        <LeaveForm loading={isLoading} onLeave={(note) => void record({ kind: 'left', note })} />
      ) : (
        <Button variant="plain" onClick={() => setLeaving(true)} paddingX="0" marginTop="2">
          Leave it alone…
        </Button>
      )}
    </Box>
  );
}

function LeaveForm({ loading, onLeave }: { loading: boolean; onLeave: (note: string) => void }) {
  const [note, setNote] = useState('');
  const [complaint, setComplaint] = useState<string>();
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        if (note.trim() === '') setComplaint('Say why it stays as it is.');
        else onLeave(note.trim());
      }}
    >
      <Flex gap="2" alignItems="flex-end" marginTop="3">
        <Box flex="1">
          <Labelled label="Left alone because" error={complaint}>
            <Input value={note} onChange={(event) => setNote(event.target.value)} maxLength={200} autoFocus />
          </Labelled>
        </Box>
        <Button type="submit" loading={loading}>
          Leave it
        </Button>
      </Flex>
    </form>
  );
}
