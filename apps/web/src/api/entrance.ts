import type {
  AcceptInput,
  ChangePasswordInput,
  FirstRunInput,
  LoadExportInput,
  PersonalInput,
  SignInInput,
} from '@glenfold/contract';
import { useMutation } from '@tanstack/react-query';
import { type ApiProblem, api, sendForm } from './client.ts';

/** Coming in and going out. Who is signed in is asked anew by the one who calls. */
function useEntry<V>(enter: (variables: V) => Promise<null>) {
  return useMutation<null, ApiProblem, V>({ mutationFn: enter });
}

export const useSignIn = () => useEntry((input: SignInInput) => api('POST', '/session', input));
export const useEnterDemo = () => useEntry((personId: string) => api('POST', '/demo/session', { personId }));
export const useFirstRun = () => useEntry((input: FirstRunInput) => api('POST', '/first-run', input));
/** @param onPart with the share of the file that has gone, 0 to 1 */
export const useLoadExport = (onPart: (share: number) => void) =>
  useEntry(({ file, email, password }: LoadExportInput & { readonly file: File }) => {
    const form = new FormData();
    form.append('email', email);
    form.append('password', password);
    form.append('file', file);
    return sendForm('/first-run/load', form, onPart);
  });
export const useAccept = (token: string) =>
  useEntry((input: AcceptInput) => api('PUT', `/invitations/${token}/offer`, input));
export const useForgot = () => useEntry((email: string) => api('POST', '/password-resets', { email }));
export const useReset = (token: string) =>
  useEntry((password: string) => api('PUT', `/password-resets/${token}`, { password }));
export const useSignOut = () => useEntry((everywhere: boolean) => api('DELETE', everywhere ? '/sessions' : '/session'));
export const useChangePassword = () => useEntry((input: ChangePasswordInput) => api('PUT', '/session/password', input));
export const useSavePersonal = () => useEntry((input: PersonalInput) => api('PUT', '/session/personal', input));
export const useChoosePractice = () =>
  useEntry((practiceId: string) => api('PUT', '/session/practice', { practiceId }));

/** Begin anew as whoever is signed in now: nothing of the one before stays in memory. */
export function startOver(path = '/'): void {
  window.location.assign(path);
}
