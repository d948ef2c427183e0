'use client';

import { useState, type FormEvent } from 'react';
import { checkedForm, typedInto, type FormErrors, type FormName } from '@/wire';

const namesOf = (form: HTMLFormElement) =>
  [...form.elements].filter((field): field is HTMLInputElement => 'name' in field && field instanceof HTMLElement);

/**
 * Holds a form against its schema before it is sent; what is wrong stays here, marked and with the focus on the first
 * of it. From then on it is checked again at every change, so that a complaint goes as soon as it is met.
 */
export function useCheckedForm(name: FormName) {
  const [errors, setErrors] = useState<FormErrors | null>(null);

  const check = (form: HTMLFormElement): FormErrors | null => {
    const checked = checkedForm(name, typedInto(new FormData(form)));
    const found = checked.ok ? null : checked.errors;
    setErrors(found);
    return found;
  };

  return {
    errors,
    onSubmit: (event: FormEvent<HTMLFormElement>) => {
      const found = check(event.currentTarget);
      if (found === null) return;
      event.preventDefault();
      namesOf(event.currentTarget)
        .find((field) => field.name in found)
        ?.focus();
    },
    onChange: (event: FormEvent<HTMLFormElement>) => {
      if (errors !== null) check(event.currentTarget);
    },
  };
}
