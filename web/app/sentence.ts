/**
 * Makes what a schema says of a field a sentence.
 *
 * @example sentence('there is room for 60 characters here') // 'There is room for 60 characters here.'
 */
export const sentence = (message: string): string =>
  `${message.charAt(0).toUpperCase()}${message.slice(1)}.`.replace('..', '.');
