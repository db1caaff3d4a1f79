import { Box, Flex } from '@chakra-ui/react';
import type { SheetRevision } from '@zero-lash/contract/sheets';
import {
  isUnread,
  lashPoints,
  limitsInWords,
  meansFor,
  resolveBand,
  resolveLimits,
  ROLE_WORDS,
} from '@zero-lash/core/sheets';
import { mmFromTenths } from '@zero-lash/core/length';
import { limitsFromMm } from '@zero-lash/core/measuring';
import { aimFor } from '@zero-lash/core/setting';
import { Download } from 'lucide-react';
import type { ReactNode } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { useSession } from '../app/useSession.ts';
import { useShopTimes } from '../app/useShopTimes.ts';
import { useLengths, useShownIn } from '../app/lengths.ts';
import { Page, PartHeading } from '../app/Page.tsx';
import { ProblemNote } from '../app/ProblemNote.tsx';
import { GapBar } from '../drawings/GapBar.tsx';
import { HeadDrawing } from '../drawings/HeadDrawing.tsx';
import { useRole } from '../app/useRole.ts';
import { PositionPictures } from '../turning/PositionPictures.tsx';
import { SheetTurning } from '../turning/SheetTurning.tsx';
import { ChangeList } from './ChangeList.tsx';
import { DraftNote } from './DraftNote.tsx';
import { useSheetQuery } from './endpoints.ts';
import { SecondReading } from './SecondReading.tsx';
import { useAsRead } from './useAsRead.ts';
import { PieceCharts } from './PieceCharts.tsx';
import { Unknowns } from './Unknowns.tsx';
import { sheetInWords } from './inWords.ts';
import { alsoInWords, layoutInWords, meansInWords, STATUS_WORDS } from './words.ts';

/** One spec sheet, read: the pattern, its limits, where they come from, where to turn, and when to look again. */
export default function SheetPage() {
  const times = useShopTimes();
  const { id = '' } = useParams();
  const [search] = useSearchParams();
  const { data: revisions, error, refetch } = useSheetQuery(id);
  const asked = Number(search.get('revision'));
  const published = revisions?.find(({ status }) => status === 'published');
  const now = revisions?.find(({ number }) => number === asked) ?? published ?? revisions?.[0];
  const { sheet, reread } = useAsRead(now, async () =>
    (await refetch()).data?.find((each) => each.id === now?.id),
  );
  const shown = useShownIn(sheet?.system);
  if (error) return <ProblemNote error={error} onRetry={refetch} />;
  if (!revisions || !sheet || !now) return null;
  const before = revisions.find(({ number }) => number === sheet.number - 1);
  const { pattern } = sheet;
  return (
    <Page
      title={`${sheet.maker} ${sheet.name}`}
      under={`${layoutInWords(pattern)} · revision ${sheet.number}, ${STATUS_WORDS[sheet.status]}`}
      actions={<Actions sheet={sheet} revisions={revisions} />}
    >
      <DraftNote sheet={sheet} now={now} onReread={() => void reread()} />
      <SecondReading sheet={sheet} />
      <Box
        display="grid"
        gap="8"
        gridTemplateColumns={{ base: 'minmax(0, 1fr)', lg: 'minmax(0, 1fr) minmax(0, 400px)' }}
      >
        <Box minWidth="0">
          <PartHeading>Lash points</PartHeading>
          <HeadDrawing
            pattern={pattern}
            points={Object.fromEntries(
              lashPoints(pattern).map(({ key }) => [key, { state: 'not-measured' as const }]),
            )}
            selected={null}
            label={`Lash points of the ${sheet.maker} ${sheet.name}`}
          />
          <Box marginTop="6">
            <PartHeading>Limits, {sheet.condition}</PartHeading>
            <Limits sheet={sheet} />
          </Box>
          {sheet.status === 'published' && <Unknowns sheet={sheet} title="Not known" />}
          {sheet.pictures.length > 0 && (
            <Box marginTop="6">
              <PartHeading>What is seen at its positions</PartHeading>
              <PositionPictures pictures={sheet.pictures} />
            </Box>
          )}
        </Box>
        <Box as="dl" display="grid" gap="0" alignContent="start">
          {sheetInWords(sheet, shown)
            // these are drawn and shown beside it
            .filter(({ name }) => !name.startsWith('Limits') && !name.startsWith('Picture '))
            .map(({ name, text }) => (
              <Fact key={name} name={name}>
                {text}
              </Fact>
            ))}
          <Fact name="Entered by">{sheet.enteredBy}</Fact>
          <Fact name="Checked by">{checkedInWords(sheet, times.day)}</Fact>
          {revisions.length > 1 && (
            <Fact name="Revisions">
              <Flex gap="3">
                {revisions.map(({ number, status }) => (
                  <Link key={number} to={`?revision=${number}`} aria-current={number === sheet.number}>
                    {number}
                    {status !== 'published' && `, ${STATUS_WORDS[status]}`}
                  </Link>
                ))}
              </Flex>
            </Fact>
          )}
        </Box>
      </Box>
      {before && (
        <Box marginTop="6">
          <PartHeading>What changed from revision {before.number}</PartHeading>
          <ChangeList
            from={before}
            to={sheet}
            before={`Revision ${before.number}`}
            after={`Revision ${sheet.number}`}
          />
        </Box>
      )}
      <PieceCharts key={`pieces of ${sheet.id}`} sheet={sheet} />
      <Box marginTop="6">
        <SheetTurning key={sheet.id} sheet={sheet} />
      </Box>
    </Page>
  );
}

function checkedInWords(
  { checkedBy, writers, readBy, publishedAt }: SheetRevision,
  day: (moment: string) => string,
): string {
  if (!checkedBy) return 'nobody yet';
  const read = readBy === null ? '' : `, read by ${readBy}`;
  const alone = isUnread({ checkedBy, writers, readBy }) ? ', who wrote it; nobody else has read it' : read;
  return `${checkedBy}${publishedAt ? `, published ${day(publishedAt)}` : ''}${alone}`;
}

interface ActionsProps {
  readonly sheet: SheetRevision;
  readonly revisions: readonly SheetRevision[];
}

function Actions({ sheet, revisions }: ActionsProps) {
  const { mayWork } = useRole();
  const draft = revisions.find(({ status }) => status === 'draft');
  return (
    <>
      <a className="zl-tool" href={`/api/sheet-revisions/${sheet.id}/file`} download>
        <Download size={18} aria-hidden /> File
      </a>
      {mayWork && (
        <>
          <Link className="zl-tool" to={`/sheets/new?copy=${sheet.sheetId}`}>
            Copy
          </Link>
          {draft ? (
            <Link className="zl-tool" to={`/sheets/${sheet.sheetId}/draft`}>
              Change the draft
            </Link>
          ) : (
            <Link className="zl-tool" to={`/sheets/${sheet.sheetId}/revise`}>
              New revision
            </Link>
          )}
        </>
      )}
    </>
  );
}

function Limits({ sheet }: { readonly sheet: SheetRevision }) {
  const { figure, band, length } = useLengths();
  const shown = useShownIn(sheet.system);
  const rule = useSession()?.shop.singleRule ?? null;
  return (
    <Box>
      {sheet.limitsToCome && <Box>To come: the book that has them is not here yet.</Box>}
      {resolveLimits(sheet.limits, rule).map(({ role, asWritten, also, allowance, ...resolved }) => (
        <Flex
          key={role}
          gap="5"
          alignItems="center"
          borderTop="1px solid"
          borderColor="hairline"
          paddingY="2"
          flexWrap="wrap"
        >
          <Box width="210px">
            <Box fontWeight="650">{ROLE_WORDS[role]}</Box>
            {resolved.figure === null ? (
              <>
                <Box fontSize="lg">{band(resolved.min, resolved.max)}</Box>
                {asWritten && (
                  <Box fontSize="sm" color="faded">
                    written “{asWritten}”
                  </Box>
                )}
              </>
            ) : (
              <>
                <Box fontSize="lg">maker: {asWritten || length(resolved.figure)}</Box>
                <Box>shop: {band(resolved.min, resolved.max)}</Box>
              </>
            )}
            {/* a revision that this device fetched before it was kept says nothing of it */}
            {(also ?? []).map((each) => (
              <Box key={each.kind} fontSize="sm">
                {alsoInWords(each.kind, sheet.condition)}:{' '}
                {limitsInWords({ ...resolveBand(each, rule), asWritten: each.asWritten }, band, length)}
              </Box>
            ))}
            {allowance && allowance.over > 0 && (
              <Box fontSize="sm">
                up to {length(allowance.over)} over: {allowance.why}
              </Box>
            )}
          </Box>
          <GapBar
            min={resolved.min}
            max={resolved.max}
            gap={null}
            state="not-measured"
            target={mmFromTenths(aimFor('middle', role, limitsFromMm(resolved)))}
            width={300}
            figure={figure}
          />
          <Box flex="1" fontSize="sm" color="faded" minWidth="160px">
            {meansInWords(meansFor(sheet.pattern, role), shown)}
          </Box>
        </Flex>
      ))}
    </Box>
  );
}

function Fact({ name, children }: { readonly name: string; readonly children: ReactNode }) {
  return (
    <Box
      display="grid"
      gridTemplateColumns="120px minmax(0, 1fr)"
      gap="3"
      paddingY="2"
      borderBottom="1px solid"
      borderColor="hairline"
    >
      <Box as="dt" color="faded">
        {name}
      </Box>
      <Box as="dd">{children}</Box>
    </Box>
  );
}
