import { boilSizes } from '@zabrik/catalogue/heat';
import {
  boilingSalt,
  boilMinutes,
  brineShare,
  formatCount,
  formatLitres,
  formatMass,
  kilograms,
  SATURATED,
  saltAtRest,
  saltForBrine,
} from '@zabrik/core';
import { useState } from 'react';
import { NumField } from '../../../kit/NumField.tsx';
import { Select } from '../../../kit/Select.tsx';
import { longWords } from '../coolingMethods.ts';
import { LineOf } from './LineOf.tsx';
import { Sum } from './Sum.tsx';

/** Salt for a brine of a strength. */
export function Brine() {
  const [water, setWater] = useState(5);
  const [share, setShare] = useState(6);
  const over = share / 100 > SATURATED;
  const salt = over ? 0 : saltForBrine(water, share / 100);
  return (
    <Sum
      title="Brine"
      answer={over ? 'more than water holds' : formatMass(kilograms(salt))}
      says={
        <p>
          Of the whole, that is {share} %. Weighed as a share of the water it would be{' '}
          {over
            ? ''
            : `${formatCount((salt / water) * 100, 1)} %, and ${formatCount((1 - brineShare(water * (share / 100), water) / (share / 100)) * 100)} % weaker if you weighed it so`}
          . Cold water takes up 26.4 % and no more.
        </p>
      }
      equation="salt = water · w ÷ (1 − w)"
      source="Mass balance; 359 g of salt to a kilogram of water at 20 °C (tables of chemistry, recalled)."
    >
      <NumField label="Water" unit="l" value={water} min={0.1} max={500} onValue={setWater} />
      <NumField label="Strength" unit="%" value={share} min={0.1} max={30} onValue={setShare} />
    </Sum>
  );
}

/** Salt that ends up the same in food and water: nothing can be oversalted. */
export function AtRest() {
  const [food, setFood] = useState(2);
  const [water, setWater] = useState(1);
  const [share, setShare] = useState(1.4);
  const salt = saltAtRest(food, water, share / 100);
  return (
    <Sum
      title="Salt at rest"
      answer={formatMass(kilograms(salt))}
      says={
        <p>
          For {formatMass(food * 1e6)} of food in {formatLitres(water)}: given time it settles at {share} % everywhere,
          and cannot get saltier. Water 0: a dry cure in a bag.
        </p>
      }
      equation="salt = w · (food + water) ÷ (1 − w)"
      source="Mass balance at equilibrium. How long it takes goes with the square of the thickness; a light cure kills no parasites and no bacteria."
    >
      <NumField label="Food" unit="kg" value={food} min={0.01} max={500} decimals={2} onValue={setFood} />
      <NumField label="Water" unit="l" value={water} min={0} max={500} decimals={2} onValue={setWater} />
      <NumField label="To end at" unit="%" value={share} min={0.1} max={10} onValue={setShare} />
    </Sum>
  );
}

const names: Readonly<Record<string, string>> = {
  prawn: 'Prawn',
  langoustine: 'Langoustine',
  lobster: 'Lobster',
  'brown-crab': 'Brown crab',
  'spider-crab': 'Spider crab',
};

/** Salt of the water and minutes in it, by the size of the animal. */
export function Boil() {
  const [litres, setLitres] = useState(10);
  const [perLitre, setPerLitre] = useState(35);
  const [animal, setAnimal] = useState('lobster');
  const [grams, setGrams] = useState(600);
  const sizes = boilSizes[animal] ?? [];
  const minutes = boilMinutes(sizes, grams);
  const low = Math.min(...sizes.map((s) => s.grams)) * 0.7;
  const high = Math.max(...sizes.map((s) => s.grams)) * 1.4;
  return (
    <Sum
      title="Crustacean boil"
      answer={longWords(minutes)}
      says={
        <p>
          From the boil coming back, for one of {grams} g;{' '}
          <strong>{formatMass(kilograms(boilingSalt(litres, perLitre)))}</strong> of salt in {litres} litres. The core
          decides; your local code says how hot.
        </p>
      }
      chart={
        <LineOf
          label="Minutes in the boil over the weight of the animal"
          xUnit="g"
          yUnit="min"
          points={Array.from({ length: 12 }, (_, i) => low + ((high - low) * i) / 11).map((x) => ({
            x,
            y: boilMinutes(sizes, x) ?? 0,
          }))}
          mark={{ x: grams, y: minutes ?? 0 }}
        />
      }
      equation="minutes ∝ weight^⅔ between known sizes; salt = litres · grams a litre"
      source="Sizes and minutes: kitchen practice, no single document. The sea has about 35 g a litre."
    >
      <Select
        label="What"
        className="col-span-2"
        value={animal}
        onValue={(value) => {
          setAnimal(value);
          setGrams(boilSizes[value]?.[0]?.grams ?? 500);
        }}
        options={Object.keys(boilSizes).map((id) => ({ value: id, name: names[id] ?? id }))}
      />
      <NumField label="One weighs" unit="g" value={grams} min={3} max={5_000} decimals={0} onValue={setGrams} />
      <NumField label="Water" unit="l" value={litres} min={0.5} max={200} onValue={setLitres} />
      <NumField label="Salt" unit="g/l" value={perLitre} min={0} max={60} decimals={0} onValue={setPerLitre} />
    </Sum>
  );
}
