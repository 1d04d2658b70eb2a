/** Every part of the kit in every state, to look at while building: /kit on the development server alone. */
import { type ReactNode, useState } from 'react';
import { Button } from './Button.tsx';
import { ChartFrame } from './ChartFrame.tsx';
import { Check } from './Check.tsx';
import { Choice } from './Choice.tsx';
import { DataTable } from './DataTable.tsx';
import { DateField } from './DateField.tsx';
import { Dialog } from './Dialog.tsx';
import { Field } from './Field.tsx';
import { AmountField, MoneyField } from './MoneyField.tsx';
import { Empty, Failed, Loading, Notice } from './Notice.tsx';
import { NumberPad } from './NumberPad.tsx';
import { NumField } from './NumField.tsx';
import { OneField, someWords } from './OneField.tsx';
import { Hint, Popover } from './Popover.tsx';
import { ProgressBar } from './ProgressBar.tsx';
import { RangeBar } from './RangeBar.tsx';
import { SearchBox } from './SearchBox.tsx';
import { SearchSelect } from './SearchSelect.tsx';
import { Select } from './Select.tsx';
import { TabList, TabPanel, Tabs } from './Tabs.tsx';
import { Toggle } from './Toggle.tsx';

const Part = ({ name, children }: { readonly name: string; readonly children: ReactNode }) => (
  <section className="rounded-plate border border-line bg-sheet p-4">
    <h2 className="mb-3 font-head text-[17px] font-bold">{name}</h2>
    {children}
  </section>
);

const pieces = [
  { name: 'Fillet', grams: 1_240 },
  { name: 'Frame', grams: 448 },
  { name: 'Roe', grams: null },
  { name: 'Head', grams: 518 },
];

const trays = [
  { value: 'portion', name: 'portions' },
  { value: 'stock', name: 'stock' },
  { value: 'filling', name: 'filling, sausage and everything else that is minced first' },
] as const;
type Tray = (typeof trays)[number]['value'];

export default function KitPage() {
  const [text, setText] = useState('Hake');
  const [mass, setMass] = useState<number | null>(1_372);
  const [tray, setTray] = useState<Tray>('stock');
  const [on, setOn] = useState(true);
  const [ticked, setTicked] = useState(true);
  const [typed, setTyped] = useState('');
  const [digits, setDigits] = useState('');
  const [minor, setMinor] = useState(1_250);
  const [day, setDay] = useState('2026-12-03');
  const [animal, setAnimal] = useState('');
  const [asked, setAsked] = useState(false);
  return (
    <main className="grid gap-4 p-4 lg:grid-cols-2 xl:grid-cols-3">
      <Part name="Button">
        <div className="flex flex-wrap gap-2">
          <Button variant="strong">Close the stage</Button>
          <Button variant="plain">Plain</Button>
          <Button>Quiet</Button>
          <Button variant="alarm">Throw away</Button>
          <Button variant="strong" disabled>
            Not now
          </Button>
          <Button variant="strong" size="bench" hotkey="p">
            At the bench
          </Button>
        </div>
      </Part>
      <Part name="Toggle: on or off">
        <div className="flex flex-wrap items-center gap-2">
          <Toggle on={on} onPress={() => setOn(!on)}>
            Plate
          </Toggle>
          <Toggle on={!on} onPress={() => setOn(!on)}>
            The other
          </Toggle>
          <Toggle on={on} shape="pill" onPress={() => setOn(!on)}>
            Pill
          </Toggle>
          <Toggle on={on} size="small" onPress={() => setOn(!on)}>
            Small
          </Toggle>
          <Toggle on={on} tone="calm" onPress={() => setOn(!on)}>
            Good
          </Toggle>
          <Toggle on={!on} tone="alarm" onPress={() => setOn(!on)}>
            Bad
          </Toggle>
          <Toggle on={on} size="bench" hotkey="t" onPress={() => setOn(!on)}>
            At the bench
          </Toggle>
          <Toggle on={false} disabled onPress={() => setOn(!on)}>
            Not now
          </Toggle>
          <span className="flex rounded-md border-[1.5px] border-line-strong bg-white">
            <Toggle on={on} shape="part" onPress={() => setOn(true)}>
              One
            </Toggle>
            <Toggle on={!on} shape="part" onPress={() => setOn(false)}>
              Two
            </Toggle>
          </span>
          <Toggle on={on} shape="line" onPress={() => setOn(!on)}>
            A line of a list
          </Toggle>
        </div>
      </Part>
      <Part name="One field and its button">
        <div className="grid gap-3">
          <OneField
            label="Why"
            placeholder="empty: its button waits"
            formClass="flex items-end gap-2"
            className="flex-1"
            read={someWords}
            onSend={setText}
            send="Take back"
            sending={{ variant: 'alarm', className: 'h-11' }}
          />
          <OneField
            label="Begun with what is usual"
            start="Skimmed"
            again
            formClass="flex items-end gap-2"
            className="flex-1"
            read={someWords}
            onSend={setText}
            send="Write"
            sending={{ className: 'h-11' }}
          />
        </div>
      </Part>
      <Part name="Field">
        <div className="grid grid-cols-2 gap-3">
          <Field label="Name" value={text} onChange={(event) => setText(event.target.value)} />
          <Field label="With a unit" unit="g" inputMode="decimal" defaultValue="2,860" />
          <Field label="With a hint" hint="Empty: one" />
          <Field label="Refused" defaultValue="1,37 2" error="1,372 can be read in two ways: write 1372 or 1.372." />
          <Field label="Big" big unit="g" defaultValue="412" />
          <Field label="Off" disabled defaultValue="nobody may" />
          <Field label="Small, at a desk" dense defaultValue="frame" />
          <Field aria-label="Without a label" placeholder="5 kg" />
        </div>
      </Part>
      <Part name="NumField: a number within bounds, comma or point">
        <div className="grid grid-cols-2 gap-3">
          <NumField label="Weight" unit="g" value={mass} min={1} max={5_000} onValue={setMass} />
          <NumField label="Out of bounds" unit="°C" value={120} min={-5} max={100} onValue={() => undefined} />
        </div>
      </Part>
      <Part name="Money and days">
        <div className="grid grid-cols-2 gap-3">
          <MoneyField label="As typed" currency="GBP" defaultValue="31.46" />
          <MoneyField label="Refused" currency="JPY" defaultValue="31.46" error="An amount, such as 3146" />
          <AmountField label="Worth" currency="EUR" per="a kg" minor={minor} onMinor={setMinor} max={1_000} />
          <AmountField label="Without hundredths" currency="JPY" minor={1_250} onMinor={setMinor} max={9_000} />
          <DateField label="Use by" day={day} value={day} onChange={(event) => setDay(event.target.value)} />
          <DateField label="Not said" day="" hint="Empty: the usual life" />
        </div>
      </Part>
      <Part name="SearchSelect: one of many">
        <SearchSelect
          label="Animal"
          placeholder="Type a part of its name"
          none="No such animal."
          chosen={animal}
          onChoose={setAnimal}
          options={[
            { id: 'hake', name: 'Hake', group: 'round fish', also: 'Merluccius merluccius' },
            { id: 'brill', name: 'Brill', group: 'flatfish', also: 'Scophthalmus rhombus' },
            { id: 'cream', name: 'Cream', group: 'dairy' },
          ]}
        />
      </Part>
      <Part name="RangeBar: inside, below, beyond the ruler, none yet">
        <div className="grid gap-2">
          {[30, 12, 95, undefined].map((value) => (
            <RangeBar key={String(value)} low={20} high={40} value={value} from={0} to={60} wrong={value === 12} />
          ))}
          <RangeBar low={20} high={40} value={25} from={0} to={60} tone="calm" height="bar" />
        </div>
      </Part>
      <Part name="Popover, hint, dialog: by touch, key or mouse">
        <div className="flex flex-wrap items-center gap-4">
          <Popover trigger={<Button variant="plain">More of it</Button>} label="More of it">
            Closes by a touch elsewhere or Escape.
          </Popover>
          <Hint label="What is usual">Eight of ten of yours lie between these.</Hint>
          <Hint label="One no is enough" mark="!" tone="alarm">
            One no is enough to refuse it.
          </Hint>
          <Button variant="plain" onClick={() => setAsked(true)}>
            Ask
          </Button>
          {asked && (
            <Dialog title="Print the code?" says="It is shown once." onClose={() => setAsked(false)}>
              <Button variant="strong" onClick={() => setAsked(false)}>
                Print it
              </Button>
            </Dialog>
          )}
        </div>
      </Part>
      <Part name="Select: one of a list">
        <div className="grid grid-cols-2 gap-3">
          <Select label="Goes to" value={tray} onValue={setTray} options={trays} />
          <Select label="Nothing chosen" none="which tray" options={trays} defaultValue="" />
          <Select label="Refused" none="which tray" options={trays} error="Say where it goes." defaultValue="" />
          <Select label="Small" dense options={trays} defaultValue="stock" />
          <Select label="Beside" beside fit options={trays.slice(0, 2)} defaultValue="stock" />
          <Select label="Being read" none="wait" options={undefined} disabled />
        </div>
      </Part>
      <Part name="Choice: one of a few">
        <div className="grid gap-3">
          <Choice legend="How it came" options={trays} value={tray} onValue={setTray} />
          <Choice legend="Round" round options={trays.slice(0, 2)} value={tray} onValue={setTray} />
          <Choice legend="Refused" options={trays.slice(0, 2)} value={undefined} onValue={setTray} error="Say which." />
        </div>
      </Part>
      <Part name="Check: a tick">
        <Check label="Bones go to a second wash" checked={ticked} onChange={() => setTicked(!ticked)} />
        <Check label="Nobody may" disabled />
      </Part>
      <Part name="ProgressBar">
        {[0, 0.42, 1, null].map((doneRatio) => (
          <ProgressBar key={String(doneRatio)} label="How far it is" doneRatio={doneRatio} />
        ))}
      </Part>
      <Part name="Notice">
        <div className="grid gap-2">
          <Notice tone="calm">Two labels printed.</Notice>
          <Notice tone="attention">Frame weighs 300 g more than yours usually do.</Notice>
          <Notice tone="alarm">There is less of it than you take out.</Notice>
        </div>
      </Part>
      <Part name="Nothing there, being read, failed">
        <Empty title="Nothing is kept yet">What is cut and put aside stands here.</Empty>
        <Loading />
        <Failed error={new Error('No connection to the kitchen’s server.')} again={() => undefined} />
      </Part>
      <Part name="DataTable">
        <DataTable
          rows={pieces}
          rowId={(p) => p.name}
          file="pieces.csv"
          caption="A head sorts."
          columns={[
            { id: 'name', head: 'Piece', value: (p) => p.name },
            { id: 'mass', head: 'Mass, g', figure: true, value: (p) => p.grams },
          ]}
        />
      </Part>
      <Part name="Tabs: in a row, in a column">
        {[false, true].map((column) => (
          <Tabs key={String(column)} defaultValue="scale" className="mb-2">
            <TabList
              column={column}
              label={column ? 'In a column' : 'In a row'}
              tabs={[
                { value: 'scale', name: 'Scale' },
                { value: 'how', name: 'How it is made' },
              ]}
            />
            <TabPanel value="scale">Scaled to what there is.</TabPanel>
            <TabPanel value="how">Step by step.</TabPanel>
          </Tabs>
        ))}
      </Part>
      <Part name="ChartFrame: drawing, sentence, figures">
        <ChartFrame
          label="Two pieces"
          sentence="The frame weighs more than the head."
          columns={['Piece', 'Mass, g']}
          rows={pieces.map((p) => [p.name, String(p.grams)])}
          height={40}
        >
          <svg viewBox="0 0 100 10" className="h-10 w-full" aria-hidden="true">
            <rect width="60" height="10" fill="var(--color-portion)" />
          </svg>
        </ChartFrame>
      </Part>
      <Part name="SearchBox">
        <SearchBox value={typed} onValue={setTyped} label="Search" placeholder="name, code, supplier" />
      </Part>
      <Part name="NumberPad">
        <output className="figure mb-2 block text-2xl">{digits === '' ? 'nothing typed' : digits}</output>
        <NumberPad
          label="Digits"
          onDigit={(digit) => setDigits(digits + digit)}
          onBack={() => setDigits(digits.slice(0, -1))}
          onDone={() => setDigits('')}
          doneLabel="Done"
          doneDisabled={digits === ''}
        />
      </Part>
    </main>
  );
}
