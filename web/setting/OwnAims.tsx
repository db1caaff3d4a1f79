import { Box, Button, Flex, Input } from '@chakra-ui/react';
import { parseLength } from '@zero-lash/core/length';
import { aimsOutside, type OwnAim } from '@zero-lash/core/setting';
import { resolveLimits, ROLE_WORDS, type Role } from '@zero-lash/core/sheets';
import { useState, type FormEvent } from 'react';
import { Caution } from '../app/Caution.tsx';
import { useDraft } from '../app/useDraft.ts';
import { Labelled } from '../app/Labelled.tsx';
import { useLengths } from '../app/lengths.ts';
import { ProblemNote } from '../app/ProblemNote.tsx';
import type { BuildView } from '../builds/buildView.ts';
import { useChangeBuildMutation, useRevisionQuery } from '../builds/endpoints.ts';
import { useRole } from '../app/useRole.ts';

interface Props {
  readonly build: BuildView;
  readonly onKept: () => void;
}

/** The shop's own figure for each role; one outside the maker's band wants a reason, and a lead. */
export function OwnAims({ build, onKept }: Props) {
  const { unit, figure, band } = useLengths();
  const { mayLead } = useRole();
  // the maker's own limits, and not those that an aim outside them has put in their place
  const { data: sheet } = useRevisionQuery(build.revisionId);
  const [send, { error, isLoading }] = useChangeBuildMutation();
  const said = build.ownAims?.figures ?? [];
  const {
    texts: typed,
    type,
    clear,
  } = useDraft(`aims:${build.id}`, {
    ...Object.fromEntries(said.map(({ role, target }) => [role as string, figure(target)])),
    reason: build.ownAims?.reason ?? '',
  });
  const { reason } = typed;
  const [complaints, setComplaints] = useState<Partial<Record<Role | 'reason', string>>>({});
  if (!sheet) return null;
  const read = (role: Role): number | null => {
    const parsed = parseLength(typed[role] ?? '', unit);
    return 'error' in parsed || parsed.mm > 10 ? null : parsed.mm;
  };
  const limits = resolveLimits(sheet.limits, build.singleRule);
  const figures = limits.flatMap(({ role }): OwnAim[] => {
    const target = read(role);
    return target === null ? [] : [{ role, target }];
  });
  const outside = aimsOutside(limits, figures);

  async function keep(event: FormEvent) {
    event.preventDefault();
    const wrong = Object.fromEntries(
      limits
        .filter(({ role }) => read(role) === null)
        .map(({ role, max }) => [role, `A gap such as ${figure(max)}.`]),
    );
    const next = {
      ...wrong,
      ...(outside.length > 0 && reason.trim() === ''
        ? { reason: 'Say why it is aimed outside the band.' }
        : {}),
    };
    setComplaints(next);
    if (Object.keys(next).length > 0) return;
    const { id: buildId, version, complaint } = build;
    const answer = await send({
      ...{ buildId, version, complaint, aim: 'own' as const, ownAims: figures, aimReason: reason.trim() },
    });
    if ('error' in answer) return;
    clear();
    onKept();
  }

  return (
    <form onSubmit={(event) => void keep(event)} noValidate>
      <Flex gap="3" flexWrap="wrap" alignItems="flex-end" marginTop="2">
        {limits.map(({ role, min, max }) => (
          <Box key={role} width="150px">
            <Labelled label={`${ROLE_WORDS[role]}, ${unit}`} error={complaints[role]} hint={band(min, max)}>
              <Input
                value={typed[role] ?? ''}
                inputMode="decimal"
                maxLength={12}
                onChange={({ target }) => type(role, target.value)}
              />
            </Labelled>
          </Box>
        ))}
      </Flex>
      {outside.length > 0 && (
        <>
          <Caution>
            Outside the maker’s band: {outside.map(({ role }) => ROLE_WORDS[role]).join(', ')}. The points are
            then judged against this aim, a band as wide laid about it, and every page of this build says so.
            A valve that does not close fully burns. {mayLead ? '' : 'Only a lead may aim there.'}
          </Caution>
          <Labelled label="Why it is aimed there" error={complaints.reason}>
            <Input value={reason} maxLength={300} onChange={({ target }) => type('reason', target.value)} />
          </Labelled>
        </>
      )}
      <Button type="submit" marginTop="2" loading={isLoading} disabled={outside.length > 0 && !mayLead}>
        Aim at these
      </Button>
      <ProblemNote error={error} />
    </form>
  );
}
