import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { unitsComeFrom, usualUnits } from '@zabrik/core';
import { type ComponentProps, useState } from 'react';
import { useForm } from 'react-hook-form';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ChartFrame } from './ChartFrame.tsx';
import { Check } from './Check.tsx';
import { Choice } from './Choice.tsx';
import { type Column, DataTable } from './DataTable.tsx';
import { DateField } from './DateField.tsx';
import { Dialog } from './Dialog.tsx';
import { Field } from './Field.tsx';
import { aFigure, aFigureOrNothing, aPrice, aWeight } from './fieldReaders.ts';
import KitPage from './KitPage.tsx';
import { AmountField, MoneyField } from './MoneyField.tsx';
import { NumField } from './NumField.tsx';
import { OneField, someWords } from './OneField.tsx';
import { Hint } from './Popover.tsx';
import { ProgressBar } from './ProgressBar.tsx';
import { RangeBar } from './RangeBar.tsx';
import { massIn, temperatureIn, weightIn } from './readers.ts';
import { SearchSelect } from './SearchSelect.tsx';
import { optionsOf, Select } from './Select.tsx';
import { TabList, TabPanel, Tabs } from './Tabs.tsx';
import { Toggle } from './Toggle.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

describe('a field', () => {
  it('is named by its label, and what is wrong with it is read with it', () => {
    render(<Field label="Weight" unit="g" error="A weight, such as 2860" />);
    const box = screen.getByLabelText('Weight');
    expect(box.getAttribute('aria-invalid')).toBe('true');
    const words = document.getElementById(box.getAttribute('aria-describedby') ?? '');
    expect(words?.textContent).toBe('A weight, such as 2860');
    expect(screen.getByText('g')).toBeTruthy();
  });

  it('says its hint until there is something wrong', () => {
    const { rerender } = render(<Field label="Use by" hint="Empty: the usual life" />);
    expect(screen.getByText('Empty: the usual life')).toBeTruthy();
    rerender(<Field label="Use by" hint="Empty: the usual life" error="No such day" />);
    expect(screen.queryByText('Empty: the usual life')).toBeNull();
  });
});

describe('a number field', () => {
  it('takes comma and point, tells a number within bounds at once, and says the bounds otherwise', () => {
    const told = vi.fn();
    render(<NumField label="Core" unit="°C" value={20} min={-5} max={100} onValue={told} />);
    const box = screen.getByLabelText('Core');
    fireEvent.focus(box);
    fireEvent.change(box, { target: { value: '63,5' } });
    expect(told).toHaveBeenLastCalledWith(63.5);
    fireEvent.change(box, { target: { value: '120' } });
    expect(told).toHaveBeenCalledTimes(1);
    expect(screen.getByText('−5 to 100 °C')).toBeTruthy();
    fireEvent.blur(box);
    expect((box as HTMLInputElement).value).toBe('20');
  });

  it('asked for grams or kilograms takes a mass with its own unit: 8 oz are 226.8 g', () => {
    const told = vi.fn();
    render(<NumField label="Weighs" unit="g" value={160} min={5} max={5_000} onValue={told} />);
    const box = screen.getByLabelText(/^Weighs/);
    fireEvent.change(box, { target: { value: '8 oz' } });
    expect(told).toHaveBeenLastCalledWith(226.796);
    fireEvent.change(box, { target: { value: '1.2 kg' } });
    expect(told).toHaveBeenLastCalledWith(1_200);
    fireEvent.change(box, { target: { value: '20 kg' } });
    fireEvent.change(box, { target: { value: '8 pints' } });
    expect(told).toHaveBeenCalledTimes(2);
    cleanup();
    const degrees = vi.fn();
    render(<NumField label="Core" unit="°C" value={20} onValue={degrees} />);
    fireEvent.change(screen.getByLabelText(/^Core/), { target: { value: '8 oz' } });
    expect(degrees).not.toHaveBeenCalled();
  });
  it('in a house of pounds and Fahrenheit it shows and reads those, and tells what they are inside', () => {
    unitsComeFrom(() => ({ ...usualUnits, mass: 'imperial', temperature: 'F', volume: 'us' }));
    try {
      const told = vi.fn();
      render(<NumField label="Weighs" unit="g" value={226.796} min={5} max={5_000} onValue={told} />);
      const box = screen.getByLabelText(/^Weighs/) as HTMLInputElement;
      expect(box.value).toBe('8');
      expect(screen.getByText('oz')).toBeTruthy();
      fireEvent.change(box, { target: { value: '3' } });
      expect(told).toHaveBeenLastCalledWith(expect.closeTo(85.0486, 3));
      fireEvent.change(box, { target: { value: '160 g' } });
      expect(told).toHaveBeenLastCalledWith(160);
      // a bound is said in ounces, and what is said can be typed
      fireEvent.change(box, { target: { value: '400' } });
      expect(screen.getByText('0.176 to 176.37 oz')).toBeTruthy();
      fireEvent.change(box, { target: { value: '0.176' } });
      expect(told).toHaveBeenLastCalledWith(expect.closeTo(4.99, 2));
      cleanup();
      const degrees = vi.fn();
      render(<NumField label="Core" unit="°C" value={63} min={0} max={100} onValue={degrees} />);
      const core = screen.getByLabelText(/^Core/) as HTMLInputElement;
      expect(core.value).toBe('145.4');
      fireEvent.change(core, { target: { value: '165' } });
      expect(degrees).toHaveBeenLastCalledWith(expect.closeTo(73.889, 3));
      fireEvent.change(core, { target: { value: '63 C' } });
      expect(degrees).toHaveBeenLastCalledWith(63);
      fireEvent.change(core, { target: { value: '300' } });
      expect(screen.getByText('32 to 212 °F')).toBeTruthy();
    } finally {
      unitsComeFrom(() => usualUnits);
    }
  });

  it('one that is told late waits until it is left', () => {
    const told = vi.fn();
    render(<NumField label="Heads" value={4} decimals={0} late onValue={told} />);
    const box = screen.getByLabelText('Heads');
    fireEvent.focus(box);
    fireEvent.change(box, { target: { value: '14' } });
    expect(told).not.toHaveBeenCalled();
    fireEvent.keyDown(box, { key: 'Enter' });
    expect(told).toHaveBeenLastCalledWith(14);
  });
});

const trays = { portion: 'portions', stock: 'stock', filling: 'filling' } as const;

describe('one of a list', () => {
  it('tells the value of what is chosen, and what stands there when nothing is', () => {
    const told = vi.fn();
    render(<Select label="Goes to" none="which tray" options={optionsOf(trays)} value="portion" onValue={told} />);
    const box = screen.getByLabelText<HTMLSelectElement>('Goes to');
    expect([...box.options].map((o) => o.textContent)).toEqual(['which tray', 'portions', 'stock', 'filling']);
    fireEvent.change(box, { target: { value: 'stock' } });
    expect(told).toHaveBeenLastCalledWith('stock');
    fireEvent.change(box, { target: { value: '' } });
    expect(told).toHaveBeenLastCalledWith('');
  });

  it('stands empty while its options are read, and says what is wrong', () => {
    render(<Select label="Goes to" options={undefined} error="Say where it goes." defaultValue="" />);
    const box = screen.getByLabelText<HTMLSelectElement>('Goes to');
    expect(box.options).toHaveLength(0);
    expect(document.getElementById(box.getAttribute('aria-describedby') ?? '')?.textContent).toBe('Say where it goes.');
  });

  it('can be named without a label of its own', () => {
    render(<Select aria-label="Which place" options={optionsOf(trays)} defaultValue="stock" fit />);
    expect(screen.getByLabelText<HTMLSelectElement>('Which place').value).toBe('stock');
  });
});

describe('one of a few', () => {
  it('shows all, tells what is chosen, and holds one at a time', () => {
    const Held = () => {
      const [tray, setTray] = useState<keyof typeof trays>('stock');
      return <Choice legend="Goes to" options={optionsOf(trays)} value={tray} onValue={setTray} />;
    };
    render(<Held />);
    const [portions, stock] = within(screen.getByRole('group', { name: 'Goes to' })).getAllByRole<HTMLInputElement>(
      'radio',
    );
    expect([portions?.checked, stock?.checked]).toEqual([false, true]);
    fireEvent.click(screen.getByText('portions'));
    expect([portions?.checked, stock?.checked]).toEqual([true, false]);
  });

  it('nothing is chosen until someone chooses', () => {
    render(<Choice legend="Kept" options={optionsOf(trays)} value={undefined} onValue={() => undefined} />);
    expect(screen.getAllByRole<HTMLInputElement>('radio').filter((r) => r.checked)).toEqual([]);
  });

  it('is registered like any field, with what is wrong with it under it', () => {
    const sent = vi.fn();
    const Form = () => {
      const { register, handleSubmit } = useForm({ defaultValues: { tray: 'stock', ready: false } });
      return (
        <form onSubmit={(event) => void handleSubmit((typed) => sent(typed))(event)}>
          <Choice legend="Goes to" quiet error="Say which." options={optionsOf(trays)} {...register('tray')} />
          <Check label="Ready to eat" {...register('ready')} />
          <button type="submit">Send</button>
        </form>
      );
    };
    render(<Form />);
    expect(screen.getByText('Say which.')).toBeTruthy();
    fireEvent.click(screen.getByLabelText('filling'));
    fireEvent.click(screen.getByLabelText('Ready to eat'));
    fireEvent.click(screen.getByRole('button', { name: 'Send' }));
    return waitFor(() => expect(sent).toHaveBeenCalledWith({ tray: 'filling', ready: true }));
  });
});

describe('a toggle', () => {
  it('says whether it is on, by word and not by colour alone, and its key', () => {
    const pressed = vi.fn();
    render(
      <Toggle on hotkey="t" onPress={pressed}>
        True size
      </Toggle>,
    );
    const button = screen.getByRole('button', { name: /True size/ });
    expect([button.getAttribute('aria-pressed'), button.getAttribute('aria-keyshortcuts')]).toEqual(['true', 't']);
    fireEvent.click(button);
    expect(pressed).toHaveBeenCalledOnce();
  });

  it('does nothing where it may not', () => {
    const pressed = vi.fn();
    render(
      <Toggle on={false} disabled onPress={pressed}>
        Hold
      </Toggle>,
    );
    fireEvent.click(screen.getByRole('button', { name: 'Hold' }));
    expect(pressed).not.toHaveBeenCalled();
  });
});

it('how far something is: a share, or that nobody can say', () => {
  const { rerender } = render(<ProgressBar label="Labels" doneRatio={0.426} />);
  const bar = screen.getByRole('progressbar', { name: 'Labels' });
  expect(bar.getAttribute('aria-valuenow')).toBe('42');
  rerender(<ProgressBar label="Labels" doneRatio={null} />);
  expect(bar.getAttribute('aria-valuenow')).toBeNull();
});

describe('a table', () => {
  interface Piece {
    readonly name: string;
    readonly grams: number | null;
  }
  const pieces: readonly Piece[] = [
    { name: 'frame', grams: 448 },
    { name: '=HYPERLINK("x")', grams: null },
    { name: 'Fillet', grams: 1_240 },
    { name: 'head', grams: 518 },
  ];
  const columns: readonly Column<Piece>[] = [
    { id: 'name', head: 'Piece', value: (p) => p.name },
    {
      id: 'mass',
      head: 'Mass',
      figure: true,
      value: (p) => p.grams,
      cell: (p) => (p.grams === null ? '–' : `${p.grams} g`),
    },
  ];
  const masses = () =>
    screen
      .getAllByRole('row')
      .slice(1)
      .map((row) => within(row).getAllByRole('cell')[1]?.textContent);
  const sortOf = (head: string) => screen.getByRole('columnheader', { name: head }).getAttribute('aria-sort');

  it('stands as it came, sorts up, down and back, and what has no value stands last either way', () => {
    render(<DataTable rows={pieces} columns={columns} rowId={(p) => p.name} />);
    const came = ['448 g', '–', '1240 g', '518 g'];
    expect(masses()).toEqual(came);
    const head = screen.getByRole('button', { name: 'Mass' });
    fireEvent.click(head);
    expect([masses(), sortOf('Mass')]).toEqual([['448 g', '518 g', '1240 g', '–'], 'ascending']);
    fireEvent.click(head);
    expect([masses(), sortOf('Mass')]).toEqual([['1240 g', '518 g', '448 g', '–'], 'descending']);
    fireEvent.click(head);
    expect([masses(), sortOf('Mass')]).toEqual([came, null]);
  });

  it('sorts words without regard to capitals', () => {
    render(<DataTable rows={pieces} columns={columns} rowId={(p) => p.name} />);
    fireEvent.click(screen.getByRole('button', { name: 'Piece' }));
    expect(masses()).toEqual(['–', '1240 g', '448 g', '518 g']);
  });

  it('does not sort a part: the first of what happens to be read is not the first', () => {
    render(<DataTable rows={pieces} columns={columns} rowId={(p) => p.name} whole={false} caption="12 more" />);
    expect(screen.queryByRole('button', { name: 'Mass' })).toBeNull();
    expect(screen.getByText('12 more')).toBeTruthy();
  });

  it('goes out as CSV in the order it stands, and no cell is run', async () => {
    const blobs: Blob[] = [];
    Object.assign(URL, {
      createObjectURL: (blob: Blob) => {
        blobs.push(blob);
        return 'blob:x';
      },
      revokeObjectURL: () => undefined,
    });
    const clicked = vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(() => undefined);
    render(<DataTable rows={pieces} columns={columns} rowId={(p) => p.name} file="pieces.csv" />);
    fireEvent.click(screen.getByRole('button', { name: 'Mass' }));
    fireEvent.click(screen.getByRole('button', { name: 'As CSV' }));
    await waitFor(() => expect(clicked).toHaveBeenCalledOnce());
    const text = await new Promise<string>((done) => {
      const reader = new FileReader();
      reader.onload = () => done(String(reader.result));
      reader.readAsText(blobs[0] as Blob);
    });
    expect(text.replace('\ufeff', '').split('\r\n')).toEqual([
      'Piece,Mass',
      'frame,448',
      'head,518',
      'Fillet,1240',
      `"'=HYPERLINK(""x"")",`,
    ]);
  });
});

it('the page of the kit shows every part, each with a name', () => {
  render(<KitPage />);
  for (const name of ['Button', 'Field', 'Select: one of a list', 'Choice: one of a few', 'DataTable', 'NumberPad'])
    expect(screen.getByRole('heading', { name })).toBeTruthy();
  const unnamed = [...document.querySelectorAll('input, select, button')].filter(
    (e) =>
      (e as HTMLInputElement).labels?.length !== 1 &&
      !e.hasAttribute('aria-label') &&
      (e.textContent ?? '').trim() === '',
  );
  expect(unnamed).toEqual([]);
});

describe('one field and its button', () => {
  const sent = vi.fn();
  const open = (more: Partial<ComponentProps<typeof OneField<string>>> = {}) =>
    render(<OneField label="Why" read={someWords} onSend={sent} send="Take back" {...more} />);
  const type = (text: string): void => void fireEvent.change(screen.getByLabelText('Why'), { target: { value: text } });
  const button = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Take back' });
  beforeEach(() => sent.mockClear());

  it('waits until there is something to send, and sends it read', async () => {
    open();
    expect(button().disabled).toBe(true);
    type('   ');
    expect(button().disabled).toBe(true);
    type(' too warm ');
    fireEvent.click(button());
    await waitFor(() => expect(sent).toHaveBeenCalledExactlyOnceWith('too warm', 'too warm'));
    expect(screen.getByLabelText<HTMLInputElement>('Why').value).toBe(' too warm ');
  });

  it('sends nothing by Enter that its button would not send', async () => {
    open({ pending: true });
    type('too warm');
    fireEvent.submit(screen.getByLabelText('Why'));
    cleanup();
    open();
    fireEvent.submit(screen.getByLabelText('Why'));
    await new Promise((done) => setTimeout(done, 0));
    expect(sent).not.toHaveBeenCalled();
  });

  it('stands empty again for what is said time and again, and begins with what is usual', async () => {
    open({ again: true, start: 'skimmed' });
    fireEvent.submit(screen.getByLabelText('Why'));
    await waitFor(() => expect(screen.getByLabelText<HTMLInputElement>('Why').value).toBe(''));
    expect(sent).toHaveBeenCalledWith('skimmed', 'skimmed');
  });
});

describe('what was typed, read', () => {
  it('is a weight with its unit or in grams, a weight of something more than nothing, a temperature; else nothing', () => {
    expect(['100', '1.2 kg', '8 oz', '0', 'a bit', ''].map(massIn)).toEqual([
      100_000,
      1_200_000,
      226_796,
      0,
      undefined,
      undefined,
    ]);
    expect(['100', '0', 'a bit'].map(weightIn)).toEqual([100_000, undefined, undefined]);
    expect(['3.5', '38 F', 'warm', ''].map(temperatureIn)).toEqual([350, 333, undefined, undefined]);
  });
  it('in a form it is read the same way, and says in words what it is not', () => {
    const said = (
      schema: {
        safeParse: (text: string) => { success: boolean; data?: unknown; error?: { issues: { message: string }[] } };
      },
      text: string,
    ) => {
      const read = schema.safeParse(text);
      return read.success ? read.data : read.error?.issues[0]?.message;
    };
    expect(said(aWeight('A weight'), '1.2 kg')).toBe(1_200_000);
    expect(said(aWeight('A weight'), '0')).toBe('A weight');
    expect(said(aFigure('Such as 2.5'), '2,5')).toBe(2.5);
    expect(said(aFigure('Such as 2.5'), '-1')).toBe('Such as 2.5');
    expect(said(aFigureOrNothing('A figure'), ' ')).toBeUndefined();
    expect(said(aFigureOrNothing('A figure'), 'x')).toBe('A figure');
  });
});

describe('a chart', () => {
  it('says what it shows, in a sentence too, and has its figures as a table, alike ones as well', () => {
    render(
      <ChartFrame
        label="Two prices"
        sentence="The same twice."
        columns={['kg', 'kg']}
        rows={[
          ['1', '2'],
          ['1', '2'],
        ]}
        height={20}
      >
        <svg />
      </ChartFrame>,
    );
    expect(screen.getByRole('img', { name: 'Two prices' })).toBeTruthy();
    expect(screen.getByText('The same twice.')).toBeTruthy();
    expect(screen.getAllByRole('row')).toHaveLength(3);
    expect(screen.getAllByRole('columnheader').map((h) => h.textContent)).toEqual(['kg', 'kg']);
  });
});

describe('tabs', () => {
  it('are a row of which one is on, with its panel, and arrows go from one to the next', () => {
    render(
      <Tabs defaultValue="a">
        <TabList
          column
          label="Which"
          tabs={[
            { value: 'a', name: 'First' },
            { value: 'b', name: 'Second', hotkey: 'b' },
          ]}
        />
        <TabPanel value="a">one</TabPanel>
        <TabPanel value="b">two</TabPanel>
      </Tabs>,
    );
    expect(screen.getByRole('tablist', { name: 'Which' })).toBeTruthy();
    expect(screen.getByRole('tabpanel').textContent).toBe('one');
    const second = screen.getByRole('tab', { name: 'Second' });
    expect(second.getAttribute('aria-keyshortcuts')).toBe('b');
    fireEvent.focus(second);
    fireEvent.mouseDown(second);
    expect(screen.getByRole('tabpanel').textContent).toBe('two');
  });
});

describe('money', () => {
  it('is told in whole minor units of the house’s own currency, and shows its mark', () => {
    const told = vi.fn();
    const { rerender } = render(<AmountField label="Worth" currency="GBP" minor={1_250} onMinor={told} max={1_000} />);
    const box = screen.getByLabelText('Worth') as HTMLInputElement;
    expect(box.value).toBe('12.5');
    expect(screen.getByText('£')).toBeTruthy();
    fireEvent.focus(box);
    fireEvent.change(box, { target: { value: '3.05' } });
    expect(told).toHaveBeenLastCalledWith(305);
    rerender(<AmountField label="Worth" currency="JPY" per="a kg" minor={1_250} onMinor={told} max={9_000} />);
    const yen = screen.getByLabelText('Worth') as HTMLInputElement;
    expect(yen.value).toBe('1250');
    expect(screen.getByText('JPY a kg')).toBeTruthy();
    fireEvent.focus(yen);
    fireEvent.change(yen, { target: { value: '1300' } });
    expect(told).toHaveBeenLastCalledWith(1_300);
  });

  it('is not told before the house’s currency is known', () => {
    const told = vi.fn();
    render(<AmountField label="Worth" currency={undefined} minor={0} onMinor={told} max={1_000} />);
    fireEvent.change(screen.getByLabelText('Worth'), { target: { value: '3' } });
    expect(told).not.toHaveBeenCalled();
  });

  it('typed into a form is read as its currency has it, and the example is one of its own', () => {
    render(<MoneyField label="Price" currency="USD" />);
    expect(screen.getByText('$')).toBeTruthy();
    expect(aPrice('GBP').parse('31.46')).toBe(3_146);
    expect(aPrice('JPY').parse('3146')).toBe(3_146);
    expect(aPrice('JPY').safeParse('31.46').error?.issues[0]?.message).toBe('An amount, such as 3146');
  });
});

it('a day is said as a day of the week where the form knows it, and its hint else', () => {
  const { rerender } = render(<DateField label="Use by" day="2026-12-03" hint="Empty: the usual life" />);
  expect(screen.getByText('Thursday 3 December')).toBeTruthy();
  rerender(<DateField label="Use by" day="" hint="Empty: the usual life" />);
  expect(screen.getByText('Empty: the usual life')).toBeTruthy();
  rerender(<DateField label="Use by" day="2026-02-31" hint="Empty: the usual life" />);
  expect(screen.getByText('Empty: the usual life')).toBeTruthy();
});

it('a range bar stands by its ruler: 20 to 40 of 60 is a third to two thirds, and what lies beyond stands at the end', () => {
  const { container, rerender } = render(<RangeBar low={20} high={40} value={30} from={0} to={60} />);
  const [band, mark] = [...container.querySelectorAll<HTMLElement>('span span')];
  expect(Number.parseFloat(band?.style.left ?? '')).toBeCloseTo(33.33, 1);
  expect(band?.style.right).toMatch(/33\.33/);
  expect(mark?.style.left).toBe('50%');
  rerender(<RangeBar low={20} high={40} value={95} from={0} to={60} />);
  expect(container.querySelectorAll<HTMLElement>('span span')[1]?.style.left).toBe('100%');
  rerender(<RangeBar low={20} high={40} value={undefined} from={0} to={60} />);
  expect(container.querySelectorAll('span span')).toHaveLength(1);
});

it('a hint opens by a press and closes by Escape', async () => {
  render(<Hint label="What is usual">Eight of ten</Hint>);
  expect(screen.queryByText('Eight of ten')).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'What is usual' }));
  expect(await screen.findByText('Eight of ten')).toBeTruthy();
  fireEvent.keyDown(document.activeElement ?? document.body, { key: 'Escape' });
  await waitFor(() => expect(screen.queryByText('Eight of ten')).toBeNull());
});

describe('a dialog', () => {
  it('is closed by Escape where it may be', () => {
    const closed = vi.fn();
    render(
      <Dialog title="Sure?" onClose={closed}>
        <button type="button">Yes</button>
      </Dialog>,
    );
    expect(screen.getByRole('dialog', { name: 'Sure?' })).toBeTruthy();
    fireEvent.keyDown(document.activeElement ?? document.body, { key: 'Escape' });
    expect(closed).toHaveBeenCalledTimes(1);
  });

  it('that must be answered stays, and the page under it cannot be reached', () => {
    render(
      <>
        <button type="button">Under it</button>
        <Dialog title="Still you?" covers>
          <button type="button">Yes</button>
        </Dialog>
      </>,
    );
    fireEvent.keyDown(document.activeElement ?? document.body, { key: 'Escape' });
    expect(screen.getByRole('dialog', { name: 'Still you?' })).toBeTruthy();
    // Enter is the dialog’s own, and presses nothing in it
    expect(document.activeElement).toBe(screen.getByRole('dialog', { name: 'Still you?' }));
    expect(screen.queryByRole('button', { name: 'Under it' })).toBeNull();
  });
});

it('one of many is found by a part of its name or another name, and can be changed', () => {
  const chose = vi.fn();
  const props = {
    label: 'Animal',
    placeholder: 'Type',
    none: 'No such animal.',
    onChoose: chose,
    options: [
      { id: 'hake', name: 'Hake', group: 'round fish', also: 'Merluccius merluccius' },
      { id: 'brill', name: 'Brill', group: 'flatfish' },
    ],
  };
  const { rerender } = render(<SearchSelect {...props} chosen="" />);
  fireEvent.change(screen.getByPlaceholderText('Type'), { target: { value: 'merluc' } });
  expect(screen.queryByText('Brill')).toBeNull();
  fireEvent.click(screen.getByText('Hake'));
  expect(chose).toHaveBeenCalledWith('hake');
  rerender(<SearchSelect {...props} chosen="hake" />);
  fireEvent.click(screen.getByRole('button', { name: 'Hake. Change the animal' }));
  fireEvent.change(screen.getByPlaceholderText('Type'), { target: { value: 'zebra' } });
  expect(screen.getByText('No such animal.')).toBeTruthy();
});
