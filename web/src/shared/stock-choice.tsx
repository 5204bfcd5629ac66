import { useAppDispatch, useAppSelector } from '../state/store';
import { stockChosen } from '../state/view-slice';
import { Chips } from '../ui/chips';

/** Which stock the thicknesses on offer are from; kept on this device. */
export function StockChoice() {
  const dispatch = useAppDispatch();
  const stock = useAppSelector(s => s.view.stock);
  return (
    <Chips
      label="Stock"
      value={stock}
      choices={[
        ['inch', 'US sizes'],
        ['metric', 'metric sizes'],
      ]}
      onChoose={s => dispatch(stockChosen(s))}
    />
  );
}
