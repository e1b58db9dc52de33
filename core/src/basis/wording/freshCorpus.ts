/**
 * The new half of the corpus: sentences written before the rules they try were touched, as people write them in
 * handbooks, with exactly what must be marked. The rules were mended by it, so that it keeps them from getting worse;
 * what they are worth on sentences they do not know is measured by the held-out ones of `laterCorpus.ts`.
 * Read with the glossary of the corpus. For tests only.
 */
export const FRESH_CORPUS: readonly (readonly [sentence: string, ...marks: string[]])[] = [
  // Currencies
  ['The deposit of a meter is EUR 45.'],
  ['A late bill costs 12.50 EUR more.'],
  ['A second reminder costs the member USD 3.20.'],
  ['The tariff order gives all sums in EUR and rounds to cents.'],
  ['Sums above 1,000 CHF go to the treasurer.'],
  ['The member pays £4 or 5 € at the counter.'],
  ['A refund below 2 euros goes to the next bill.'],
  ['The fee is 30 GBP for members and 45 GBP for guests.'],
  // Weekdays and months
  ['The counter closes on Saturdays and Sundays.'],
  ['Each Friday the clerk counts the cash.'],
  ['The file arrives every Tuesday before 06:00.'],
  ['From Monday to Thursday the office opens at 08:30.'],
  ['The yearly bill leaves in January or in the first week of February.'],
  ['Readings of December count for the old year.'],
  ['On Wed and Thu the reader walks the upper town.'],
  // Articles, sections and the word that begins a clause
  ['Article 7 of the statutes names the treasurer.'],
  ['Under Art. 12 the member may appeal.'],
  ['See Articles 3 and 4 of the tariff order.'],
  ['The clerk reads aloud: The meter is yours.'],
  ['An A4 sheet carries two bills.'],
  ['The letter quotes paragraph 2 in full.'],
  ['Annex B lists the streets.'],
  // Numbers in identifiers and lists
  ['Meter M-2207 stands in the pump house.'],
  ['The clerk files form 12b with the contract.'],
  ['Streets 4, 7 and 9 have no meters.'],
  ['Requirements R-3, R-7 and R-12 speak of readings.'],
  ['The error E1042 ends the import.'],
  ['The ledger keeps the states 1, 2 and 3 apart.'],
  ['Invoice no. 2026-117 replaces no. 2026-115.'],
  ['The account PT50 1234 5678 belongs to the association.'],
  ['1) The clerk opens the ledger.'],
  ['The gateway speaks TLS 1.3 with the bank.'],
  ['Zone B7 has its own tank.'],
  ['The seals carry the numbers 100 to 199.'],
  ['Version v2 of the form is green.'],
  ['The key F5 reads the list again.'],
  // Ordinals and counted things
  ['The 1st reminder goes by letter.'],
  ['The 3rd wrong password closes the account.'],
  ['The bill leaves on the 2nd working day of a month.'],
  ['The twenty-first attempt is refused by the gateway.'],
  ['Every 10th meter gets a second look.'],
  ['The first 5 m³ are free.'],
  ['Two of three clerks confirm a refund.'],
  ['A household of 4 persons gets 12 m³.'],
  ['The pump rests for 2 h after 6 h of work.'],
  ['The import takes at most 30 s for 10,000 lines.'],
  ['The screen shows 25 rows a page.'],
  ['The reader has 3 attempts.'],
  ['The tank holds 120 000 l of water.'],
  ['A dial turns 0.5 times an hour.'],
  ['The temperature stays between 4 °C and 8 °C.'],
  // What is weak all the same
  ['The deposit is at least 45.', 'numberWithoutUnit: 45'],
  ['The clerk answers quickly on Mondays.', 'vagueAmount: quickly'],
  ['Fees rise to 30 when the tariff changes.', 'numberWithoutUnit: 30'],
  ['Article 9 gives members a reasonable term.', 'vagueAmount: reasonable'],
  ['The 2nd reminder is friendly.', 'unverifiable: friendly'],
  ['The clerk notes damages, stains, etc.', 'openList: etc.'],
  ['The counter takes cash and/or cards.', 'hiddenAlternative: and/or'],
  ['Some streets have no meters.', 'vagueAmount: Some'],
  ['The refund limit is TBD.', 'placeholder: TBD'],
  ['The clerk opens the QRX of the member.', 'unknownTerm: QRX'],
  ['The gateway must refuse the file and log the error.', 'severalDemands: and'],
  // Plain sentences of a handbook
  ['The auditor reads every ledger and changes none.'],
  ['A member moves out and leaves the meter in place.'],
  ['The treasurer signs what the clerk has prepared.'],
  ['The council meets twice a year in the old school.'],
  ['A reading older than 40 days is no basis for a bill.'],
  ['The list names the street, the house and the meter.'],
  ['Nobody opens a well alone.'],
  ['The reader carries a lamp, a key and a pencil.'],
];

/** Texts that contradict themselves, or whose bands overlap: what is marked, null for none. */
export const FRESH_RANGES: readonly (readonly [text: string, words: string | null])[] = [
  ['A password has at least 12 and at most 8 characters.', 'at least 12 and at most 8 characters'],
  ['The reading lies between 500 and 100 m³.', 'between 500 and 100 m³'],
  ['The deposit is from 20 to 10 euros.', 'from 20 to 10 euros'],
  ['A member with 0 to 5 m³ pays 1 €, and one with 5 to 15 m³ pays 2 €.', '5 to 15 m³'],
  ['The first band goes from 0 to 5 m³, the second band from 6 to 15 m³.', null],
  ['Consumption of 0–10 m³ costs 1 €. Consumption of 8–20 m³ costs 2 €.', '8–20 m³'],
  ['Consumption of 0–10 m³ costs 1 €. Consumption above 10 m³ costs 2 €.', null],
  ['The office opens from 8 to 12 hours and from 14 to 17 hours.', null],
  ['A password has 12 to 64 characters.', null],
];
