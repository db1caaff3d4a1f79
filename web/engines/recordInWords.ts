import type { ComesIn, RecordTaken } from '@zero-lash/contract/records';

/**
 * What taking a record in brings to a shop besides the engine, in sentences: people, owner, sheets, instruments.
 *
 * @example comesInWords(taken) // ['Ada Quill, of Head works comes along as somebody of that shop …']
 */
export function comesInWords({ strangers, owners, sheets, instruments, shop }: RecordTaken): string[] {
  return [
    ...(strangers.length === 0
      ? []
      : [
          `${shortened(strangers)} ${strangers.length === 1 ? 'comes' : 'come'} along by name, as of another shop, and can do nothing here.`,
        ]),
    ...owners.map(({ name, as, known }) =>
      known
        ? `The owner is taken to be ${as}, who is here already: the address and the wish that are kept here stand.`
        : `The owner, ${name}, comes along with their address and how they wish to be told.`,
    ),
    ...sheets.map((sheet) =>
      sheet.known
        ? `The spec sheet ${sheet.as} is here already; revisions that are not come as ${shop}’s.`
        : `The spec sheet ${named(sheet)} comes as ${shop}’s: it carries the history and opens no build here until it is drafted and checked here.`,
    ),
    ...instruments.map((instrument) =>
      instrument.known
        ? `${instrument.name} is taken to be the ${instrument.as} that is here.`
        : `${named(instrument)} comes as an instrument that is not at hand here.`,
    ),
  ];
}

const named = ({ name, as }: ComesIn) => (name === as ? name : `${name}, here as ${as},`);

const SHOWN = 4;

function shortened(names: readonly string[]): string {
  if (names.length <= SHOWN) return names.join('; ');
  return `${names.slice(0, SHOWN).join('; ')} and ${names.length - SHOWN} more`;
}
