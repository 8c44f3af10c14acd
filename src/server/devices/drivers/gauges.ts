import type { Driver } from '../../../contract';
import { caliperText, simulateReading } from '../../../core/craft/devices';
import { measures } from '../../../core/craft/health';
import { figure } from '../../../core/craft/judgement';
import { quantities } from '../../../core/craft/units';
import type { World } from './world';

/** A caliper on metal is good to this, mm. */
const CALIPER_NOISE_MM = 0.02;
const CALIPER_STEP_MM = 0.01;

export const caliper: Driver<'caliper-stand-in', World> = {
  async *ask(_asked, settings, { seed }) {
    const value = simulateReading(settings.valueMm, CALIPER_NOISE_MM, CALIPER_STEP_MM, seed);
    yield await Promise.resolve({ says: 'figure', value, text: caliperText(value, settings.unit) });
  },
};

export const benchMeter: Driver<'bench-meter-stand-in', World> = {
  async *ask(asked, settings, { seed }) {
    if (asked.ask === 'pulses') {
      yield await Promise.resolve({ says: 'pulses', everyS: settings.pulsesEveryS });
      return;
    }
    if (asked.ask !== 'measure') return;
    const { quantity } = measures[asked.measure];
    const { digits, unit } = quantities[quantity];
    const true_ = settings[asked.measure];
    const value = simulateReading(
      true_,
      Math.abs(true_) * (settings.noisePercent / 100),
      10 ** -digits,
      seed,
    );
    const open = 'open' in quantities[quantity] && true_ >= quantities.resistanceKOhm.open;
    yield await Promise.resolve(
      open
        ? { says: 'figure', value: true_, text: 'OL' }
        : { says: 'figure', value, text: `${figure(value, digits)} ${unit}` },
    );
  },
};

export const lightMeter: Driver<'light-meter-stand-in', World> = {
  async *ask(_asked, { lux, noisePercent }, { seed }) {
    const value = Math.max(0, simulateReading(lux, lux * (noisePercent / 100), 1, seed));
    yield await Promise.resolve({ says: 'figure', value, text: `${value} lx` });
  },
};

export const winder: Driver<'winder-stand-in', World> = {
  async *ask(_asked, { turnsAnHour }) {
    yield await Promise.resolve({ says: 'figure', value: turnsAnHour, text: `${turnsAnHour} turns an hour` });
  },
};
