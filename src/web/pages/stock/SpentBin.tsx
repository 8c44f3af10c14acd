import { Paper, Stack, Typography } from '@mui/material';
import { useEffect } from 'react';
import { useFormContext, useFormState } from 'react-hook-form';
import { v7 } from 'uuid';
import { collection, type StockResource } from '../../../contract';
import { dayInWords, localDay } from '../../../core/craft/time';
import { type SeenShop, shopNow } from '../../api/resources';
import { schemaFields } from '../../kit/factFields';
import { StockForm } from './StockForm';

const ofCollection = schemaFields(collection);

/** How many go to collection: all that lie in the bin, also while it fills, until a hand says otherwise. */
function CountField({ spentInBin }: { readonly spentInBin: number }) {
  const { resetField } = useFormContext();
  const { dirtyFields } = useFormState({ name: 'count' });
  const byHand = dirtyFields.count === true;
  useEffect(() => {
    if (!byHand) resetField('count', { defaultValue: spentInBin });
  }, [byHand, resetField, spentInBin]);
  return <ofCollection.MeasureField name="count" quantity="figureOnly" />;
}

export function SpentBin({
  stock,
  shop,
  technicianId,
}: {
  readonly stock: StockResource;
  readonly shop: SeenShop;
  readonly technicianId: string;
}) {
  return (
    <Paper component="section" aria-label="Spent cells" sx={{ p: 2 }}>
      <Typography variant="h2">Spent cells</Typography>
      <Typography>
        {stock.spentInBin === 0
          ? 'The bin is empty.'
          : `${stock.spentInBin} taped cells lie in the bin. Waste cells go to collection under local rules.`}
      </Typography>
      {stock.spentInBin > 0 && (
        <StockForm
          schema={collection}
          blank={() => ({
            id: v7(),
            count: stock.spentInBin,
            weightG: Number.NaN,
            collectedOn: localDay(shopNow(shop), shop.shop.zone),
            receipt: '',
            technicianId,
          })}
          path="/api/collections"
          action="Collected"
          done={(values) => `${values.count} cells collected, receipt ${values.receipt}.`}
        >
          <Stack direction={{ xs: 'column', sm: 'row' }} spacing={1.5}>
            <CountField spentInBin={stock.spentInBin} />
            <ofCollection.MeasureField name="weightG" quantity="figureOnly" unitShown="g" />
            <ofCollection.TextLine name="collectedOn" helper="year-month-day" />
            <ofCollection.TextLine name="receipt" mono />
          </Stack>
        </StockForm>
      )}
      {stock.collections.map((each) => (
        <Typography key={each.id}>
          {dayInWords(each.collectedOn)}: {each.count} cells, {each.weightG} g, receipt {each.receipt}
        </Typography>
      ))}
    </Paper>
  );
}
