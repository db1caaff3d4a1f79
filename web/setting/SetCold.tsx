import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { coldFrom, RUNNING } from '@zero-lash/core/builds';
import { printedCold, provisionalComplaint, setColdInWords } from '@zero-lash/core/setting';
import { parseLimits, resolveLimits, ROLE_WORDS, type Role } from '@zero-lash/core/sheets';
import { useState, type FormEvent } from 'react';
import { Caution } from '../app/Caution.tsx';
import { Labelled } from '../app/Labelled.tsx';
import { useLengths } from '../app/lengths.ts';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { useRole } from '../app/useRole.ts';
import { useKeptText } from '../app/useKeptText.ts';
import type { BuildView } from '../builds/buildView.ts';
import { useRevisionQuery, useSetColdMutation } from '../builds/endpoints.ts';

/**
 * An engine that is measured hot and cannot be run: the way to have it set cold in this build, and once it is, what it is set to, on
 * every page of the build until it was measured hot.
 */
export function SetCold({ build }: { readonly build: BuildView }) {
  const { band } = useLengths();
  const { mayWork } = useRole();
  const [saying, setSaying] = useState(false);
  const [send, { error, isLoading }] = useSetColdMutation();
  const { id: buildId, version, setCold } = build;
  if (build.sheet.condition !== 'hot') return null;
  const mayChange = mayWork && !build.closedAt && !build.signOff && coldFrom(build) !== null;
  if (setCold && build.rechecks.some(({ status }) => status === 'done')) return null;
  if (setCold)
    return (
      <Box marginBottom="3">
        <Caution>{setColdInWords(setCold, band)}</Caution>
        {mayChange && (
          <Button
            variant="outline"
            loading={isLoading}
            onClick={() => void send({ buildId, version, setCold: null })}
          >
            It can be run after all
          </Button>
        )}
        <ProblemNote error={error} />
      </Box>
    );
  if (!mayChange || build.stage === RUNNING) return null;
  return saying ? (
    <SetColdForm build={build} onDone={() => setSaying(false)} />
  ) : (
    <Button variant="plain" paddingX="0" marginBottom="2" onClick={() => setSaying(true)}>
      It cannot be run: set it cold…
    </Button>
  );
}

interface FormProps {
  readonly build: BuildView;
  readonly onDone: () => void;
}

function SetColdForm({ build, onDone }: FormProps) {
  const { unit, band } = useLengths();
  const { mayLead } = useRole();
  // the maker's own figures
  const { data: sheet } = useRevisionQuery(build.revisionId);
  const [send, { error, isLoading }] = useSetColdMutation();
  const [typed, setTyped] = useState<Partial<Record<Role, string>>>({});
  const [why, setWhy] = useKeptText(`set-cold:${build.id}`);
  const [complaints, setComplaints] = useState<Partial<Record<Role | 'why', string>>>({});
  if (!sheet) return null;
  const printed = printedCold(sheet.limits, build.singleRule);
  const wanted = resolveLimits(sheet.limits, build.singleRule).filter(({ role }) =>
    printed.every((each) => each.role !== role),
  );

  async function keep(event: FormEvent) {
    event.preventDefault();
    const read = wanted.map((hot) => ({ hot, ...bandTyped(typed[hot.role] ?? '', unit) }));
    const wrong = read.flatMap(({ hot, cold }) => {
      const complaint = cold ? provisionalComplaint(hot, cold) : 'Two figures, such as 0.20–0.25.';
      return complaint ? [[hot.role, complaint] as const] : [];
    });
    const next = {
      ...Object.fromEntries(wrong),
      ...(why.trim() === '' ? { why: 'Say why it cannot be run.' } : {}),
    };
    setComplaints(next);
    if (Object.keys(next).length > 0) return;
    const figures = read.map(({ hot, cold }) => ({ role: hot.role, ...cold! }));
    const { id: buildId, version } = build;
    const answer = await send({ buildId, version, setCold: { figures, why: why.trim() } });
    if ('error' in answer) return;
    setWhy('');
    onDone();
  }

  return (
    <Box
      as="section"
      aria-label="Set cold"
      borderTop="1px solid"
      borderColor="hairline"
      paddingY="2"
      marginBottom="3"
      maxWidth="620px"
    >
      <form onSubmit={(event) => void keep(event)} noValidate>
        {printed.length > 0 && (
          <Box>
            The maker’s cold figures:{' '}
            {printed.map(({ role, min, max }) => `${ROLE_WORDS[role]} ${band(min, max)}`).join(', ')}.
          </Box>
        )}
        {wanted.length > 0 && (
          <>
            <Caution>
              The maker prints no cold figure for {wanted.map(({ role }) => ROLE_WORDS[role]).join(', ')}. A
              lead gives a provisional gap, on the loose side: a valve that cannot close burns. It stands as
              provisional on every paper, and the gaps are measured hot before the engine goes into service.
              {mayLead ? '' : ' Only a lead may give it.'}
            </Caution>
            <Flex gap="3" flexWrap="wrap" alignItems="flex-start" marginTop="2">
              {wanted.map(({ role, min, max }) => (
                <Box key={role} width="190px">
                  <Labelled
                    label={`${ROLE_WORDS[role]}, cold, ${unit}`}
                    error={complaints[role]}
                    hint={`hot ${band(min, max)}`}
                  >
                    <Input
                      value={typed[role] ?? ''}
                      maxLength={24}
                      disabled={!mayLead}
                      onChange={({ target }) => setTyped({ ...typed, [role]: target.value })}
                    />
                  </Labelled>
                </Box>
              ))}
            </Flex>
          </>
        )}
        <Box marginTop="2">
          <Labelled label="Why it cannot be run" error={complaints.why}>
            <Input
              value={why}
              maxLength={200}
              placeholder="its boat is ashore until spring"
              onChange={({ target }) => setWhy(target.value)}
            />
          </Labelled>
        </Box>
        <Flex gap="3" marginTop="2">
          <Button type="submit" loading={isLoading} disabled={wanted.length > 0 && !mayLead}>
            Set it cold
          </Button>
          <Button variant="outline" onClick={onDone}>
            Cancel
          </Button>
        </Flex>
        <ProblemNote error={error} />
      </form>
    </Box>
  );
}

/** Two figures as they are typed; undefined where they are not two. */
function bandTyped(
  text: string,
  unit: Parameters<typeof parseLimits>[1],
): { readonly cold?: { readonly min: number; readonly max: number } } {
  const read = parseLimits(text, unit);
  return 'error' in read || read.min === null || read.max === null
    ? {}
    : { cold: { min: read.min, max: read.max } };
}
