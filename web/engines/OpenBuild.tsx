import { Box, Button } from '@chakra-ui/react';
import type { EngineView } from '@zero-lash/contract/engines';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import { JOBS, type Job } from '@zero-lash/core/builds';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useDraft } from '../app/useDraft.ts';
import { Labelled, TextArea } from '../app/Labelled.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useOpenBuildMutation } from '../builds/endpoints.ts';
import { dueInWords } from '../rechecks/due.ts';
import { useLazySheetQuery, useSheetQuery } from '../sheets/endpoints.ts';

const BY_HAND = JOBS.filter(({ opened }) => opened === 'by-hand');

/** Opens a build of an engine as what it is: one tap on its job, and where that wants it a line of what it is here for. */
export function OpenBuild({ engine }: { readonly engine: EngineView }) {
  const { data: revisions } = useSheetQuery(engine.sheetId);
  const [askSheet, asking] = useLazySheetQuery();
  const newest = newestOf(revisions);
  const {
    texts: { complaint },
    type,
    clear,
  } = useDraft(`open-build:${engine.id}`, { complaint: '' });
  const [missing, setMissing] = useState<Job | null>(null);
  const [open, { error, isLoading, originalArgs }] = useOpenBuildMutation();
  const navigate = useNavigate();
  async function start(job: Job) {
    const said = complaint.trim();
    const wants = job.complaint === 'asked' && said === '';
    setMissing(wants ? job : null);
    if (wants) return;
    // pressed before its sheet has come it is opened when that is there: no press is lost
    const on = newest ?? newestOf((await askSheet(engine.sheetId, true)).data);
    if (!on) return;
    const opened = await open({
      ...{ engineId: engine.id, revisionId: on.id, job: job.key, complaint: said },
    });
    if ('error' in opened) return;
    clear();
    void navigate(`/builds/${opened.data.build}`);
  }
  return (
    <Box as="section" aria-label="Open a build" paddingY="3" display="grid" gap="2">
      <Labelled
        label={
          engine.builds.length > 0
            ? 'Open another build: what is it here for?'
            : 'Open the first build: what is it here for?'
        }
        hint="A check needs no reason."
        error={missing ? `${missing.title}: say in a line what the engine is here for.` : undefined}
      >
        <TextArea
          value={complaint}
          onChange={(event) => type('complaint', event.target.value)}
          maxLength={300}
          minHeight="48px !important"
          rows={1}
        />
      </Labelled>
      <Box as="ul" display="grid" gap="1">
        {BY_HAND.map((job) => (
          <Box
            as="li"
            key={job.key}
            display="grid"
            gap="3"
            alignItems="center"
            gridTemplateColumns={{ base: '1fr', md: '220px 1fr' }}
          >
            <Button
              onClick={() => void start(job)}
              loading={isLoading && originalArgs?.job === job.key}
              disabled={isLoading || asking.isFetching || (revisions !== undefined && !newest)}
            >
              {job.title}
            </Button>
            <Box fontSize="sm">{job.about}</Box>
          </Box>
        ))}
      </Box>
      {revisions && !newest && (
        <Box fontSize="sm" color="faded">
          {revisions.some(({ status }) => status === 'foreign') ? (
            <>
              Its spec sheet is another shop’s. Write{' '}
              <Link to={`/sheets/${engine.sheetId}`}>a revision of your own</Link>, held against the source,
              and have it published here.
            </>
          ) : (
            'Its spec sheet is still a draft: a lead checks and publishes it first.'
          )}
        </Box>
      )}
      {newest && (
        <Box fontSize="sm" color="faded">
          On {newest.maker} {newest.name}, revision {newest.number}: {newest.source.manual}
          {newest.source.page && `, page ${newest.source.page}`}
        </Box>
      )}
      {engine.recheck && (
        <Box role="note" borderLeft="4px solid" borderColor="brass" paddingLeft="3">
          Recheck {engine.recheck.sequence}, due {dueInWords(engine.recheck, engine)}, is planned. A build
          opened here takes its place: that recheck is dropped, and the next is planned when this build is
          signed off. To do the recheck itself, open{' '}
          <Link to={`/builds/${runningBuild(engine)}`}>the build it is of</Link>.
        </Box>
      )}
      <ProblemNote error={error ?? asking.error} />
    </Box>
  );
}

/** The newest revision that a build may be opened on. */
const newestOf = (revisions: readonly SheetRevision[] | undefined) =>
  revisions?.find(({ status }) => status === 'published');

/** The build that the planned recheck is of: the last that was signed off. */
const runningBuild = ({ rechecks, recheck }: EngineView) =>
  rechecks.find(({ id }) => id === recheck?.id)?.buildId ?? '';
