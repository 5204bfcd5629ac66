import { useApp, useDo } from '../app/store';
import { stockChosen } from '../app/view-slice';
import { Chips } from './chips';

/** Which stock the thicknesses on offer are from; kept on this device. */
export function StockChoice() {
  const dispatch = useDo();
  const stock = useApp(s => s.view.stock);
  return (
    <Chips
      label="Stock"
      value={stock}
      choices={[
        ['inch', 'gauge and inch'],
        ['metric', 'metric plate'],
      ]}
      onChoose={s => dispatch(stockChosen(s))}
    />
  );
}
