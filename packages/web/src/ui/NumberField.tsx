import { NumberInput, Slider } from '@chakra-ui/react';
import { ChevronDown, ChevronUp } from 'lucide-react';
import type { KeyboardEventHandler } from 'react';
import { Field, type FieldWords } from './Field';

/** A number with its steps. */
export function NumberField({
  label,
  help,
  error,
  value,
  onValue,
  onLeave,
  onKeyDown,
  width,
  min,
  max,
  step = 1,
}: FieldWords & {
  value: string;
  onValue: (text: string) => void;
  /** Told when the field, steps and all, is left. */
  onLeave?: () => void;
  onKeyDown?: KeyboardEventHandler;
  min?: number;
  max?: number;
  step?: number;
}) {
  return (
    <Field {...{ label, help, error, width }}>
      <NumberInput.Root
        value={value}
        onValueChange={(e) => onValue(e.value)}
        step={step}
        // What is typed stays as it is; that it is too large is said, not mended behind anybody's back.
        clampValueOnBlur={false}
        onBlur={(e) => !e.currentTarget.contains(e.relatedTarget) && onLeave?.()}
        {...(min === undefined ? {} : { min })}
        {...(max === undefined ? {} : { max })}
      >
        <NumberInput.Input onKeyDown={onKeyDown} />
        <NumberInput.Control>
          <NumberInput.IncrementTrigger aria-label={`${label}: one more`}>
            <ChevronUp />
          </NumberInput.IncrementTrigger>
          <NumberInput.DecrementTrigger aria-label={`${label}: one less`}>
            <ChevronDown />
          </NumberInput.DecrementTrigger>
        </NumberInput.Control>
      </NumberInput.Root>
    </Field>
  );
}

/** A value on a line, with what it is in words beside its label. */
export function SliderField({
  label,
  value,
  words,
  onValue,
  min,
  max,
  step = 1,
}: {
  label: string;
  value: number;
  words: string;
  onValue: (value: number) => void;
  min: number;
  max: number;
  step?: number;
}) {
  return (
    <Slider.Root
      value={[value]}
      onValueChange={(e) => onValue(e.value[0] ?? value)}
      min={min}
      max={max}
      step={step}
      aria-label={[label]}
      getAriaValueText={() => words}
    >
      <Slider.Label>
        {label}: {words}
      </Slider.Label>
      <Slider.Control>
        <Slider.Track>
          <Slider.Range />
        </Slider.Track>
        <Slider.Thumb index={0}>
          <Slider.HiddenInput />
        </Slider.Thumb>
      </Slider.Control>
    </Slider.Root>
  );
}
