import {
  alsoRecord,
  card,
  expect,
  expectAccessible,
  goTo,
  recorded,
  seeUsual,
  takenIn,
  test,
} from './counter';

test('a watch with two cells is measured at both, one is changed, and the slip says which and when the other wants it', async ({
  bench: page,
}) => {
  const id = await takenIn(page, 'Q224B');
  await recorded(page, id, 'identify.movement', {
    calibreId: 'quillbeck-22-4',
    revision: null,
    code: 'QB 22-4',
    by: 'hand',
    note: '',
  });
  await goTo(page, `/jobs/${id}/check`);
  const lamp = page.getByRole('complementary', { name: 'Lamp' });
  const part = (name: string) => card(page, name);
  for (const [well, volts] of [
    ['hands', '1.56'],
    ['display', '2.41'],
  ] as const) {
    const form = part(`Rest voltage, ${well}`);
    await form.getByRole('textbox', { name: `Rest voltage, ${well}`, exact: true }).fill(volts);
    await form.getByRole('button', { name: 'Record' }).click();
    await expect(form).toContainText(`${volts} V`);
  }
  await expect(lamp).toContainText('Rest voltage, hands, 1.56 V');
  await expect(lamp).toContainText('Rest voltage, display, 2.41 V');
  await expect(lamp).toContainText('Under 2.7 V a lithium cell is spent');
  await expectAccessible(page, 'two cells measured');

  await page.getByRole('link', { name: /^5 Cell, / }).click();
  await expect(part('Display: cell found')).toBeVisible();
  for (const [well, marking] of [
    ['hands', '395'],
    ['display', 'CR1216'],
  ] as const)
    await recorded(page, id, 'cell.found', { marking, condition: 'clean' }, well);
  const fit = part('Display: cell to fit');
  await fit
    .getByRole('radio', { name: /CR1216 equal, lot/ })
    .first()
    .check();
  await fit.getByRole('button', { name: /Fitted/ }).click();
  await expect(fit).toContainText('Fitted: CR1216, lot S-1216');
  await recorded(page, id, 'cell.put-back', { reason: 'measured 1.56 V' }, 'hands');
  await goTo(page, `/jobs/${id}/handback`);
  const slip = page.getByRole('region', { name: 'Record for the owner' });
  await expect(slip).toContainText('Cell changed: display. Not changed: hands.');
  await expect(slip).toContainText('Its voltage at rest was 2.41 V (display).');
  await expect(slip).toContainText(
    /Come back by .* The cell put back in hands: It is not known when it was fitted/,
  );
});

test('a case that opens from its front, crown at 3: the knife goes in opposite, and never to a lip noted at the crown', async ({
  bench: page,
}) => {
  await goTo(page, `/jobs/${await takenIn(page, '377A-05')}/open`);
  const lamp = page.getByRole('complementary', { name: 'Lamp' });
  const order = page.getByRole('region', { name: 'Order of work' });
  await expect(lamp).toContainText('9 o’clock, seen from the dial');
  await expect(order).toContainText('Case knife under the bezel in at 9 o’clock, seen from the dial');
  await page.getByRole('button', { name: 'Measure' }).click();
  const form = card(page, 'Case back, measured');
  // Nothing is filled in as measured that nobody measured.
  await expect(form.getByRole('textbox', { name: 'Back diameter', exact: true })).toHaveValue('');
  await expect(form.getByRole('radio', { name: 'The dial' })).toBeChecked();
  const lip = form.getByRole('textbox', { name: 'Position of lip or nick', exact: true });
  await lip.fill('3');
  await expect(lamp).toContainText('would lead the knife onto the crown at 3');
  await expect(order).not.toContainText('in at 3');
  // Seen from behind the same figure is the other side of the dial.
  await form.getByRole('radio', { name: 'Behind' }).check();
  await expect(lip).toHaveValue('3');
  await expect(lamp).toContainText('9 o’clock, seen from the dial');
  await form.getByLabel('Bracelet or strap').selectOption('nothing on it');
  await form.getByRole('button', { name: 'Record' }).click();
  await expect(form).toContainText('lip at 3 o’clock, seen from behind');
  await expect(lamp.getByRole('img', { name: /^The case from the dial, to scale/ })).toBeVisible();
  await expectAccessible(page, 'a case that opens from its front');
  const caseBack = card(page, 'Case back');
  await seeUsual(caseBack, 'Case back');
  await caseBack.getByRole('button', { name: 'Record' }).click();
  await expect(caseBack).toContainText('with case knife');
});

test('a movement nobody knows has two cells once somebody names them, each with its own guard and finding', async ({
  bench: page,
}) => {
  const id = await takenIn(page, 'unmarked', { service: 'diagnose', complaint: ['stopped'] });
  await recorded(page, id, 'cell.found', { marking: '377', condition: 'clean' });
  await goTo(page, `/jobs/${id}/cell`);
  const part = (name: string) => card(page, name);
  await alsoRecord(page, 'Two cells');
  const places = part('Two cells');
  await places.getByLabel('First cell').fill('hands');
  await places.getByLabel('Second cell').fill('Hands');
  await places.getByRole('button', { name: 'Record' }).click();
  await expect(places).toContainText('Give the second one another name');
  await places.getByLabel('Second cell').fill('display');
  await places.getByRole('button', { name: 'Record' }).click();
  await expect(places).toContainText('Two cell places: hands and display');
  // What was recorded before stands at the first.
  await expect(part('Hands: cell found')).toContainText('377');
  const found = part('Display: cell found');
  await found.getByLabel('Marking of the old cell').fill('CR1216');
  await seeUsual(found, 'Cell found');
  await found.getByRole('button', { name: 'Record' }).click();
  await expect(found).toContainText('CR1216');
  await expectAccessible(page, 'two cells nobody knew of');

  await page.getByRole('link', { name: /^4 Check, / }).click();
  for (const [well, volts] of [
    ['hands', '1.55'],
    ['display', '2.1'],
  ] as const) {
    const form = part(`Rest voltage, ${well}`);
    await form.getByRole('textbox', { name: `Rest voltage, ${well}`, exact: true }).fill(volts);
    await form.getByRole('button', { name: 'Record' }).click();
  }
  const lamp = page.getByRole('complementary', { name: 'Lamp' });
  await expect(lamp).toContainText('Diagnosis for the cell of display■Spent cell');
  const finding = part('Finding, display');
  await expect(finding.getByLabel('Cause', { exact: true })).toHaveValue('');
  await finding.getByRole('button', { name: /As the lamp suggests: spent cell/ }).click();
  await finding.getByRole('button', { name: 'Record' }).click();
  await expect(finding).toContainText('Finding: spent cell');
  await goTo(page, `/jobs/${id}/handback`);
  await expect(page.getByRole('region', { name: 'Record for the owner' })).toContainText(
    'Finding at the cell of display: spent cell.',
  );
});
