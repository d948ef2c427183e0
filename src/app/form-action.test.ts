import { done, failed } from '@/wire';
import { saved } from './form-action';

const formWith = (values: Readonly<Record<string, string>>) => {
  const form = new FormData();
  for (const [name, value] of Object.entries(values)) form.set(name, value);
  return form;
};

describe('a form that reaches the server', () => {
  it('is checked there too, and what was typed comes back with the complaint', async () => {
    const save = jest.fn();
    const state = await saved('office', formWith({ name: ' ', siteId: 's' }), save);
    expect(state).toEqual({
      status: 'invalid',
      typed: { name: ' ', siteId: 's' },
      errors: { name: 'Give the office a name.' },
      refusal: null,
    });
    expect(save).not.toHaveBeenCalled();
  });

  it('is handed on as its schema reads it', async () => {
    const save = jest.fn(() => Promise.resolve(done(null)));
    expect(await saved('office', formWith({ name: '  Larkspur Bindery ' }), save)).toMatchObject({ status: 'saved' });
    expect(save).toHaveBeenCalledWith({ name: 'Larkspur Bindery' });
  });

  it('comes back whole when it is refused for another reason', async () => {
    const refused = () => Promise.resolve(failed('name-taken', { what: 'device', name: 'Quay Street' }));
    const state = await saved('office', formWith({ name: 'Quay Street' }), refused);
    expect(state).toMatchObject({ status: 'invalid', typed: { name: 'Quay Street' }, errors: {} });
    expect(state).toHaveProperty('refusal', expect.stringContaining('another device named Quay Street'));
  });
});
