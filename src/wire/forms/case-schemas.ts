import * as z from 'zod';
import { readDay } from './typed-day';
import { optionalMbps, typedNumber } from './typed-number';

const whole = (least: number, most: number) =>
  typedNumber
    .refine(
      (value) => value !== null && Number.isInteger(value) && value >= least && value <= most,
      `A whole number from ${least} to ${most}.`,
    )
    .transform((value) => value!);
const percent = typedNumber
  .refine((value) => value !== null && value > 0 && value <= 100, 'More than 0 and at most 100 %.')
  .transform((value) => value! / 100);

/** A case: what the contract names, and the rule by which it is held to it. Rates are typed in Mb/s. */
export const caseFormSchema = z
  .object({
    title: z.string().trim().min(1, 'Give the case a title.').max(120, 'At most 120 characters.'),
    lineId: z.string().min(1, 'Choose the line.').max(64),
    notes: z.string().trim().max(2000, 'At most 2000 characters.').default(''),
    ...{ downAdvertised: optionalMbps, downUsual: optionalMbps, downLeast: optionalMbps },
    ...{ upAdvertised: optionalMbps, upUsual: optionalMbps, upLeast: optionalMbps },
    ...{ runs: whole(1, 1000), days: whole(1, 100), perDay: whole(1, 200), apartMinutes: whole(0, 1440) },
    ...{
      usualMissedPercent: percent,
      leastDays: whole(1, 100),
      advertisedPercent: percent,
      advertisedDays: whole(1, 100),
    },
    /** From which day on runs count; blank: from now on, or as before. */
    openedFrom: z
      .string()
      .trim()
      .refine(
        (text) => text === '' || readDay(text) !== null,
        'There is no such day. Write one such as 25.11.2026, 2026-11-25 or today.',
      )
      .default(''),
  })
  .refine(({ days, perDay, runs }) => runs >= days * perDay || days * perDay <= 1000, {
    path: ['perDay'],
    message: 'So many runs a day on so many days are more than 1000.',
  });
export type CaseForm = z.infer<typeof caseFormSchema>;
