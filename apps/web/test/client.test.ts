import { jest } from '@jest/globals';
import { ApiProblem, api, standAs } from '../src/api/client.ts';

const answers = (status: number, body: string): void => {
  globalThis.fetch = jest.fn(() => Promise.resolve(new Response(status === 204 ? null : body, { status })));
};
const refusal = async (): Promise<ApiProblem> => {
  try {
    await api('POST', '/sites', { name: '' });
  } catch (error) {
    if (error instanceof ApiProblem) return error;
  }
  throw new Error('was not refused');
};

describe('the client of the API', () => {
  it('sends JSON with the token, the practice and the version that was seen, and reads it', async () => {
    answers(201, '{"id": "1"}');
    standAs({ csrf: 'token', practiceId: 'practice' });
    expect(await api('PUT', '/sites/1', { name: 'A' }, 3)).toEqual({ id: '1' });
    expect(globalThis.fetch).toHaveBeenCalledWith('/api/sites/1', {
      method: 'PUT',
      headers: {
        'content-type': 'application/json',
        'x-csrf-token': 'token',
        'x-practice': 'practice',
        'if-match': '"3"',
      },
      body: '{"name":"A"}',
    });
    answers(204, '');
    expect(await api('DELETE', '/sites/1')).toBeNull();
  });

  it('turns a refusal into words and fields', async () => {
    answers(
      422,
      JSON.stringify({
        detail: 'Give the site a name.',
        errors: [{ field: 'name', message: 'Give the site a name.' }],
      }),
    );
    expect(await refusal()).toMatchObject({
      status: 422,
      message: 'Give the site a name.',
      fields: [{ field: 'name' }],
    });
  });

  it('says that the server does not answer, and that nothing is lost, whatever came instead', async () => {
    for (const [status, body] of [
      [502, '<html>bad gateway</html>'],
      [500, ''],
    ] as const) {
      answers(status, body);
      expect((await refusal()).message).toMatch(/does not answer. What you typed is still here/);
    }
    globalThis.fetch = jest.fn(() => Promise.reject(new TypeError('failed to fetch')));
    expect(await refusal()).toMatchObject({ status: 0, message: expect.stringContaining('does not answer') as string });
  });
});
